import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";

import type { ColourView } from "../../../api/colour";

const Lines = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 14px;
  color: var(--quiet);
  max-height: 40px;
  line-height: 1.2;
  overflow: auto;
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 8px;
  }
`;
const Slot = styled(AriaButton)`
  width: 22px;
  height: 22px;
  border: 1px solid var(--edge);
  border-radius: 50%;
  cursor: pointer;
`;

interface Props {
  lights: ColourView["lights"];
  onSlot: (hex: string) => void;
}

/** What the lights really do for the colour: emitters, flags, or the nearest slot of their wheel, with the slots to choose. */
export function LightsDo({ lights, onSlot }: Props) {
  return (
    <Lines aria-label="What the lights do">
      {lights.map((one) => (
        <li key={one.model}>
          <span>
            {one.heads} × {one.model}: {one.words}
          </span>
          {one.slots.map(({ name, hex }) => (
            <Slot
              key={name}
              aria-label={`Slot ${name}`}
              style={{ background: hex }}
              onPress={() => onSlot(hex)}
            />
          ))}
        </li>
      ))}
    </Lines>
  );
}
