import styled from "styled-components";

/** Something that runs, in the ribbon. */
export const Chip = styled.div`
  display: flex;
  align-items: center;
  border: 1px solid var(--edge);
  border-radius: 2px;
  flex: none;
  height: 42px;
  &[data-fading] {
    border-style: dashed;
  }
  button {
    min-height: 40px;
    border: 0;
    padding: 0 8px;
  }
  .name {
    display: grid;
    justify-items: start;
    line-height: 1.15;
    gap: 0;
    text-align: left;
  }
  .from {
    color: var(--quiet);
    font-size: 13px;
  }
  .name[data-pressed] .from {
    color: var(--on-bone);
  }
`;
