import styled from "styled-components";

/** Said loudly on the picture of the stage: it shows something else than the stage does. */
export const Mark = styled.section`
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 3px 12px;
  background: var(--stage-bone);
  color: var(--stage-ink);
  strong {
    flex: 1;
  }
  button {
    min-height: 30px;
    border-color: var(--stage-ink);
    color: var(--stage-ink);
  }
  button[data-hovered] {
    background: color-mix(in srgb, var(--stage-ink) 12%, transparent);
  }
  [role="group"],
  input {
    min-height: 28px;
    color: var(--stage-ink);
    border-color: var(--stage-ink);
  }
  input {
    width: 2.6em;
  }
  span {
    color: var(--stage-ink);
  }
`;
