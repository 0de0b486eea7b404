import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import type { useHand } from "../../api/hand";
import { lacking, sourceOf, type Value } from "./values";

const Row = styled.div`
  display: grid;
  grid-template-columns: 76px 1fr 92px;
  gap: 0 8px;
  align-items: center;
  min-height: 34px;
  small {
    color: var(--quiet);
    font-size: 13px;
    line-height: 1.15;
  }
`;
const Slots = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
`;
const Slot = styled(ToggleButton)`
  min-width: 34px;
  height: 30px;
  padding: 0 8px;
  border: 1px solid var(--edge);
  border-radius: 15px;
  background: transparent;
  color: var(--bone);
  font: 14px var(--numbers);
  cursor: pointer;
  &[data-hovered] {
    background: var(--raised);
  }
  &[data-selected] {
    background: var(--bone);
    color: var(--on-bone);
  }
`;

interface Props {
  value: Value;
  chosen: number;
  hand: ReturnType<typeof useHand>;
}

/** An attribute that has slots: which of them the lights have in their way. The first is open. */
export function SlotRow({ value, chosen, hand }: Props) {
  const { low, high, attribute, label, heads } = value;
  const slots = Array.from({ length: Math.round(high - low) + 1 }, (_, n) => low + n);
  return (
    <Row role="group" aria-label={label}>
      <span>{label}</span>
      <Slots
        aria-label={`${label}, slot`}
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={value.mixed ? [] : [Math.round(value.value)]}
        onSelectionChange={([slot]) =>
          slot !== undefined && void hand.commit({ attribute, heads, to: Number(slot) })
        }
      >
        {slots.map((slot) => (
          <Slot key={slot} id={slot}>
            {slot === low ? "open" : slot}
          </Slot>
        ))}
      </Slots>
      <small>{lacking(value, chosen) || sourceOf(value)}</small>
    </Row>
  );
}
