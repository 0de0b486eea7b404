import { Plus, X } from "lucide-react";
import styled from "styled-components";

import { Button } from "../../../../ui/Button";
import type { SlotProps } from "./Slot";
import { StopValue } from "./StopValue";
import type { StopGoal } from "./stopValues";

const Panel = styled.div`
  display: grid;
  gap: 6px;
`;
const Row = styled.div`
  display: grid;
  grid-template-columns: 204px 40px;
  gap: 6px;
  align-items: center;
`;
const MOST = 16;

/** A list of colours, from the first to the last. */
export function ColoursSlot({ part, editor }: SlotProps) {
  const stops = part.value as StopGoal[];
  const change = (value: StopGoal[]) => ({ operation: "set" as const, path: part.slot!, value });
  const put = (n: number, value: StopGoal) => change(stops.map((stop, m) => (m === n ? value : stop)));
  return (
    <Panel>
      {stops.map((stop, n) => (
        <Row key={n} role="group" aria-label={`Colour ${n + 1}`}>
          <StopValue
            number={n + 1}
            of="colours"
            value={stop}
            unit=""
            preview={(value) => editor.preview(put(n, value))}
            commit={(value) => void editor.commit(put(n, value))}
          />
          <Button
            data-variant="plain"
            aria-label={`Remove colour ${n + 1}`}
            isDisabled={stops.length < 2}
            onPress={() => void editor.commit(change(stops.filter((_, m) => m !== n)))}
          >
            <X size={14} aria-hidden="true" />
          </Button>
        </Row>
      ))}
      <Button
        isDisabled={stops.length >= MOST}
        onPress={() => void editor.commit(change([...stops, stops.at(-1)!]))}
      >
        <Plus size={14} aria-hidden="true" /> Add a colour
      </Button>
    </Panel>
  );
}
