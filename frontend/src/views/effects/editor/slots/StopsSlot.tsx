import { Plus, X } from "lucide-react";
import styled from "styled-components";

import { Button } from "../../../../ui/Button";
import { Choice } from "../../../../ui/Choice";
import { NumberField } from "../../../../ui/NumberField";
import type { SlotProps } from "./Slot";
import { StopValue } from "./StopValue";
import type { StopGoal } from "./stopValues";

interface Stop {
  value: StopGoal;
  travel: number;
  hold: number;
  ease: string;
  relative: boolean;
}

const Panel = styled.div`
  display: grid;
  gap: 6px;
`;
const Row = styled.div`
  display: grid;
  grid-template-columns: 204px 100px 100px 112px 40px;
  gap: 6px;
  align-items: center;
`;
const Head = styled(Row)`
  color: var(--quiet);
  font-size: 14px;
`;
const EASES = ["linear", "smooth", "snap"].map((id) => ({ id, text: id }));

/** A list of values, each with its travel and hold. */
export function StopsSlot({ part, editor }: SlotProps) {
  const stops = part.value as Stop[];
  const of = part.of ?? "values";
  const change = (value: Stop[]) => ({ operation: "set" as const, path: part.slot!, value });
  const set = (value: Stop[]) => void editor.commit(change(value));
  const put = (n: number, change: Partial<Stop>) =>
    stops.map((stop, m) => (m === n ? { ...stop, ...change } : stop));
  return (
    <Panel>
      <Head aria-hidden="true">
        <span>{of === "colours" ? "Colour" : of === "positions" ? "Position" : "Value"}</span>
        <span>Travel</span>
        <span>Hold</span>
        <span>Way</span>
      </Head>
      {stops.map((stop, n) => (
        <Row key={n} role="group" aria-label={`Stop ${n + 1}`}>
          <StopValue
            number={n + 1}
            of={of}
            value={stop.value}
            unit={part.unit ?? ""}
            preview={(value) => editor.preview(change(put(n, { value })))}
            commit={(value) => set(put(n, { value }))}
          />
          <NumberField
            label={`Travel to ${n + 1}`}
            hideLabel
            minValue={0}
            step={0.05}
            value={stop.travel}
            onChange={(travel) => set(put(n, { travel }))}
          />
          <NumberField
            label={`Hold of ${n + 1}`}
            hideLabel
            minValue={0}
            step={0.05}
            value={stop.hold}
            onChange={(hold) => set(put(n, { hold }))}
          />
          <Choice
            label={`Way to ${n + 1}`}
            hideLabel
            options={EASES}
            value={stop.ease}
            onChange={(ease) => set(put(n, { ease: String(ease) }))}
          />
          <Button
            data-variant="plain"
            aria-label={`Remove stop ${n + 1}`}
            isDisabled={stops.length < 2}
            onPress={() => set(stops.filter((_, m) => m !== n))}
          >
            <X size={14} aria-hidden="true" />
          </Button>
        </Row>
      ))}
      <Button isDisabled={stops.length >= 64} onPress={() => set([...stops, { ...stops.at(-1)! }])}>
        <Plus size={14} aria-hidden="true" /> Add a stop
      </Button>
    </Panel>
  );
}
