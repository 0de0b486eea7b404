import { ArrowUpDown } from "lucide-react";
import { memo } from "react";
import styled from "styled-components";

import { useLibrary } from "../../../api/queries";
import { useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import type { Held } from "./compare";
import { seenFrom, seenKey, seenOptions } from "./seen";
import { useKnownHeads } from "../editor/useEditor";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 2px 0 4px;
  align-items: center;
  > div > button,
  > button {
    min-height: 34px;
    font-size: 14px;
  }
`;
const LABELS: Record<string, string> = { look: "As it will look", colour: "Colour alone" };

interface Props {
  /** The effect that is not to be compared with itself. */
  id: number;
  /** What it can be woven by, in one text: so that a new weave of the same kind changes nothing here. */
  attributes: string;
  held: string | null;
  /** Hold another effect, how this one is now ("state"), or nothing. */
  onHold: (what: Held | "state" | null) => void;
  onSwap: () => void;
}

/** Over the weave: on which heads, by which attribute, and beside what it is seen. */
export const WeaveTools = memo(function WeaveTools({ id, attributes, held, onHold, onSwap }: Props) {
  const known = useKnownHeads();
  const seen = useDesk((state) => state.seen);
  const wovenBy = useDesk((state) => state.wovenBy);
  const { data: library } = useLibrary();
  const others = (library?.effects ?? []).filter((one) => one.id !== id);
  const shown = attributes.split(" ");
  return (
    <Row role="group" aria-label="How it is woven">
      <Choice
        label="Seen on"
        row
        options={seenOptions(known)}
        value={seenKey(seen)}
        onChange={(key) => useDesk.setState({ seen: seenFrom(String(key)) })}
      />
      <Choice
        label="Woven by"
        hideLabel
        options={shown.map((id) => ({ id, text: LABELS[id] ?? `By ${id}` }))}
        value={shown.includes(wovenBy) ? wovenBy : "look"}
        onChange={(key) => useDesk.setState({ wovenBy: String(key) })}
      />
      <Choice
        label="Compare with"
        hideLabel
        options={[
          { id: "none", text: held ? "Compare no more" : "Compare with …" },
          { id: "state", text: "How it is now, held" },
          ...others.map((one) => ({ id: String(one.id), text: one.name })),
        ]}
        value={held ?? "none"}
        onChange={(key) => {
          const other = others.find((one) => String(one.id) === key);
          if (other) onHold({ id: String(other.id), name: other.name, document: other.document });
          else onHold(key === "state" ? "state" : null);
        }}
      />
      {held && (
        <Button onPress={onSwap} aria-keyshortcuts="x" aria-label="Swap A and B">
          <ArrowUpDown size={14} aria-hidden="true" /> Swap (X)
        </Button>
      )}
    </Row>
  );
});
