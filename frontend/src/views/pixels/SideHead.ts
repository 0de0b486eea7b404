import styled from "styled-components";

/** On top of what stands beside the canvas: what it is, and what belongs to all of it. */
export const SideHead = styled.header`
  display: flex;
  align-items: center;
  padding: 6px 12px;
  border-bottom: 1px solid var(--line);
  h2 {
    flex: 1;
  }
`;
