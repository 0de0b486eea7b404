import { Tab as AriaTab, TabList as AriaTabList } from "react-aria-components";
import styled from "styled-components";

/** The row of tabs over a part of a view. */
export const TabRow = styled(AriaTabList)`
  display: flex;
  gap: 4px;
  border-bottom: 1px solid var(--line);
  position: sticky;
  top: 0;
  background: var(--ink);
  z-index: 1;
`;

/** One of them. */
export const TabName = styled(AriaTab)`
  padding: 8px 14px;
  min-height: 40px;
  cursor: pointer;
  color: var(--quiet);
  border-bottom: 2px solid transparent;
  outline-offset: -3px;
  &[data-selected] {
    color: var(--bone);
    border-color: var(--bone);
    font-weight: 650;
  }
`;
