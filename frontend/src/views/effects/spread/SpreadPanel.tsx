import { useState } from "react";
import styled from "styled-components";

import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";

import { Facts, Panel } from "../scope/ScopePanel";
import { OwnHead } from "./OwnHead";
import { RelayLine } from "./RelayLine";
import { RippleCircle } from "./RippleCircle";
import { LaneList } from "./LaneList";
import { lanesOf } from "./spread";
import type { Editor } from "../editor/useEditor";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;
interface Shared {
  spread: { kind: string; degrees?: number; handover?: number; order?: string; fit?: string };
  lanes: { parts?: number; mirror?: boolean; pack?: number; repeat?: number; travel?: string };
}

/** What the lanes come from, in words. */
function lanesText(lanes: Shared["lanes"], count: number): string {
  const parts = lanes.parts ?? 1;
  const words = [`${count} lane${count === 1 ? "" : "s"}`];
  if (parts > 1) words.push(`${parts} ${lanes.mirror ? "mirrored" : "equal"} parts`);
  if ((lanes.pack ?? 1) > 1) words.push(`packs of ${lanes.pack}`);
  if (lanes.repeat) words.push(`anew every ${lanes.repeat}`);
  if (lanes.travel === "reverse") words.push("last lane first");
  if (lanes.travel === "back-and-forth") words.push("there and back");
  return words.join(", ");
}

/** How the cycle lies over the heads: drag lanes for the spread or the handover, drag a head for an offset of its own. */
export function SpreadPanel({ editor }: { editor: Editor }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const { weave, effect } = editor;
  if (!weave) return <Panel aria-label="Spread" />;
  const { spread, lanes } = effect.document as unknown as Shared;
  const relay = spread.kind === "relay";
  const whole = relay ? (spread.handover ?? 1) : (spread.degrees ?? 360) / 360;
  const every = lanesOf(weave.heads, weave.lanes, weave.shares, whole);
  const head = chosen !== null && weave.heads.includes(chosen) ? chosen : null;
  return (
    <Panel aria-label="Spread">
      {relay ? (
        <RelayLine editor={editor} lanes={every} handover={whole} circuit={weave.circuit} />
      ) : (
        <RippleCircle editor={editor} weave={weave} lanes={every} onChoose={setChosen} chosen={head} />
      )}
      <Facts>
        {lanesText(lanes, weave.count)}.{" "}
        {relay
          ? spread.order === "shuffled"
            ? "Turns come in another order each circuit. Drag lane 2 for the handover."
            : "A bar is a turn. Drag a bar to change when the next lane begins."
          : "Drag a lane’s number to change the spread, a head’s dot to give it an offset of its own."}
      </Facts>
      <OwnHead editor={editor} head={head} onChoose={setChosen} relay={relay} />
      <LaneList lanes={every} relay={relay} chosen={head} onChoose={setChosen} />
      <Row>
        <NumberField
          label="Pattern anew every (0: never)"
          unit="lanes"
          minValue={0}
          maxValue={1024}
          value={lanes.repeat ?? 0}
          onChange={(value) =>
            Number.isFinite(value) &&
            void editor.commit({ operation: "set", path: "lanes.repeat", value: Math.round(value) })
          }
        />
        {!relay && (
          <Choice
            label="The last lane"
            options={[
              { id: "closed", text: "joins the first" },
              { id: "end-to-end", text: "has it all" },
            ]}
            value={spread.fit ?? "closed"}
            onChange={(key) => void editor.commit({ operation: "set", path: "spread.fit", value: key })}
          />
        )}
      </Row>
    </Panel>
  );
}
