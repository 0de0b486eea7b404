import styled from "styled-components";

/** Said loudly, over the whole width. */
export const Notice = styled.div`
  background: var(--bone);
  color: var(--on-bone);
  padding: 4px 16px;
  display: flex;
  justify-content: center;
  align-items: center;
  gap: 16px;
  flex: none;
  button {
    color: var(--on-bone);
    min-height: 32px;
  }
`;
