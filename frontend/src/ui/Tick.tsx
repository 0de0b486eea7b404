import { Checkbox } from "react-aria-components";
import styled from "styled-components";

/** Something to tick, with its box before it. */
export const Tick = styled(Checkbox)`
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 40px;
  cursor: pointer;
  &::before {
    content: "";
    flex: none;
    width: 16px;
    height: 16px;
    border: 1px solid var(--edge);
  }
  &[data-selected]::before {
    background: var(--bone);
    box-shadow: inset 0 0 0 2px var(--ink);
  }
  &[data-disabled] {
    color: var(--quiet);
    cursor: default;
  }
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
`;
