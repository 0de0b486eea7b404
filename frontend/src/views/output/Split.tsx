import styled from "styled-components";

/** Two parts beside each other, each of which scrolls by itself. */
export const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(320px, 1fr);
  height: 100%;
  > * {
    min-height: 0;
    overflow: auto;
  }
  > :first-child {
    padding: 12px 20px 12px 4px;
  }
  > :last-child {
    border-left: 1px solid var(--line);
    padding: 12px 0 12px 20px;
  }
`;
