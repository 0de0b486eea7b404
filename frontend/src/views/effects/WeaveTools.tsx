import { ArrowUpDown } from "lucide-react";
import styled from "styled-components";

import { useLibrary } from "../../api/queries";
import { useDesk } from "../../state";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import type { Held } from "./compare";
import { seenFrom, seenKey, seenOptions } from "./seen";
import { useKnownHeads, type Editor } from "./useEditor";

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
const LABELS: Record<string, string> = { look: "As it will look" };

interface Props {
  editor: Editor;
  held: Held | null;
  onHold: (held: Held | null) => void;
  onSwap: () => void;
}

/** Over the weave: on which heads, by which attribute, and beside what it is seen. */
export function WeaveTools({ editor, held, onHold, onSwap }: Props) {
  const known = useKnownHeads();
  const seen = useDesk((state) => state.seen);
  const wovenBy = useDesk((state) => state.wovenBy);
  const { data: library } = useLibrary();
  const others = (library?.effects ?? []).filter((one) => one.id !== editor.effect.id);
  const shown = editor.weave?.attributes ?? ["look"];
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
        value={held ? held.id : "none"}
        onChange={(key) => {
          const other = others.find((one) => String(one.id) === key);
          if (other) onHold({ id: String(other.id), name: other.name, document: other.document });
          else if (key === "state")
            onHold({ id: "state", name: "held state", document: editor.effect.document });
          else onHold(null);
        }}
      />
      {held && (
        <Button onPress={onSwap} aria-keyshortcuts="x">
          <ArrowUpDown size={14} aria-hidden="true" /> Swap A and B (X)
        </Button>
      )}
    </Row>
  );
}
