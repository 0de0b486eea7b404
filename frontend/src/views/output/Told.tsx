import styled from "styled-components";

/** How something does, in figures. */
export const Told = styled.p`
  color: var(--quiet);
  font: 13px var(--numbers);
  margin-top: 2px;
`;
/** What is wrong with it, beside it. */
export const Wrong = styled.p`
  border-left: 3px solid var(--bone);
  padding-left: 8px;
  margin-top: 4px;
`;
