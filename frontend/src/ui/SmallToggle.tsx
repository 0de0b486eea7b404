import { ToggleButton } from "react-aria-components";
import styled from "styled-components";

/** Something that is on or off where there is little room: all of it is target, its words may break. */
export const SmallToggle = styled(ToggleButton)`
  border: 1px solid var(--line);
  background: transparent;
  color: var(--quiet);
  font: inherit;
  font-size: 12px;
  line-height: 1.1;
  padding: 0 1px;
  overflow: hidden;
  cursor: pointer;
  &[data-selected] {
    background: var(--bone);
    color: var(--on-bone);
    font-weight: 650;
  }
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
`;
