import { Button as AriaButton, ToggleButton } from "react-aria-components";
import styled, { css } from "styled-components";

const look = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  min-height: 40px;
  padding: 0 14px;
  border: 1px solid var(--edge);
  border-radius: 2px;
  background: transparent;
  color: var(--bone);
  font: inherit;
  cursor: pointer;
  white-space: nowrap;
  &[data-hovered] {
    background: var(--raised);
  }
  &[data-pressed],
  &[data-selected] {
    background: var(--bone);
    border-color: var(--bone);
    color: var(--on-bone);
  }
  &[data-selected][data-focus-visible] {
    outline-offset: 3px;
  }
  &[data-disabled] {
    color: var(--quiet);
    border-color: var(--line);
    cursor: default;
  }
  &[data-variant="plain"] {
    border-color: transparent;
    padding: 0 10px;
  }
  &[data-variant="small"] {
    min-height: 32px;
    padding: 0 10px;
    font-size: 14px;
  }
`;

/** A button with a verb on it. */
export const Button = styled(AriaButton)`
  ${look}
`;

/** A button that stays on. */
export const Toggle = styled(ToggleButton)`
  ${look}
`;
