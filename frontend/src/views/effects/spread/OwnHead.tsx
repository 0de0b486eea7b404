import styled from "styled-components";

import { Button, Toggle } from "../../../ui/Button";
import { NumberField } from "../../../ui/NumberField";
import { Slider } from "../../../ui/Slider";
import { Facts } from "../scope/ScopePanel";
import type { Editor } from "../editor/useEditor";

const Box = styled.div`
  display: grid;
  gap: 6px;
  border-top: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
  padding: 8px 0;
`;
const Row = styled.div`
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  align-items: end;
  input {
    width: 3.4em;
  }
`;
interface Own {
  offset?: number;
  depth?: number;
  left_out?: boolean;
}
interface Props {
  editor: Editor;
  head: string | null;
  relay: boolean;
  onChoose: (head: string | null) => void;
}

/** What one head does apart from the others. */
export function OwnHead({ editor, head, relay, onChoose }: Props) {
  const every = (editor.effect.document.own ?? {}) as Record<string, Own>;
  const apart = Object.keys(every);
  const own = (head && every[head]) || {};
  const change = (value: Own) => ({ operation: "set-own" as const, path: head!, value });
  const set = (value: Own) => void editor.commit(change(value));
  return (
    <Box role="group" aria-label="A head of its own">
      {head ? (
        <>
          <h3>Head {head} alone</h3>
          <Row>
            {!relay && (
              <NumberField
                label="Offset"
                unit="°"
                minValue={-360}
                maxValue={360}
                value={own.offset ?? 0}
                onChange={(offset) => Number.isFinite(offset) && set({ offset })}
              />
            )}
            <Toggle isSelected={!!own.left_out} onChange={(left_out) => set({ left_out })}>
              Leave out
            </Toggle>
            <Button
              isDisabled={!every[head]}
              onPress={() => {
                void editor.commit({ operation: "set-own", path: head, value: null });
                onChoose(null);
              }}
            >
              As the others
            </Button>
          </Row>
          <Slider
            label="Depth"
            unit="%"
            minValue={0}
            maxValue={200}
            value={Math.round((own.depth ?? 1) * 100)}
            onChange={(depth) => editor.preview(change({ depth: depth / 100 }))}
            onChangeEnd={(depth) => void editor.commit(change({ depth: depth / 100 }))}
          />
        </>
      ) : (
        <Facts>
          {apart.length
            ? `Apart from the others: ${apart.slice(0, 8).join(", ")}${apart.length > 8 ? " …" : ""}.`
            : `Press a head below to give it ${relay ? "a" : "an offset or"} depth of its own, or to leave it out.`}
        </Facts>
      )}
      {apart.length > 0 && (
        <Row>
          <Button
            data-variant="small"
            onPress={() => void editor.commit({ operation: "reset-own", path: "", value: null })}
          >
            Reset all {apart.length} head{apart.length === 1 ? "" : "s"}
          </Button>
        </Row>
      )}
    </Box>
  );
}
