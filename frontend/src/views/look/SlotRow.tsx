import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import type { useHand } from "../../api/hand";
import { GoboPicture } from "../../ui/GoboPicture";
import { Origin } from "./Origin";
import { lacking, type Value } from "./values";

const Row = styled.div`
  display: grid;
  grid-template-columns: 66px 1fr 74px;
  gap: 0 8px;
  @media (max-width: 1180px) {
    grid-template-columns: 60px 1fr 56px;
    gap: 0 6px;
  }
  align-items: center;
  min-height: 32px;
  font-size: 14px;
`;
const Slots = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 0;
`;
const Slot = styled(ToggleButton)`
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  padding: 0;
  border: 1px solid transparent;
  border-radius: 50%;
  background: transparent;
  color: var(--bone);
  cursor: pointer;
  &[data-hovered] {
    border-color: var(--edge);
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

/** A wheel: which of its slots the lights have in their way, by picture. */
export function SlotRow({ value, chosen, hand }: Props) {
  const { low, attribute, label, heads, slots } = value;
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
        {slots.map(({ name, picture }, n) => (
          <Slot key={name} id={low + n} aria-label={name}>
            <GoboPicture picture={picture} />
          </Slot>
        ))}
      </Slots>
      <Origin value={value}>{lacking(value, chosen)}</Origin>
    </Row>
  );
}
