import styled from "styled-components";

const Box = styled.section`
  display: grid;
  gap: 3px;
  border-top: 1px solid var(--line);
  padding-top: 3px;
  &:first-child {
    border-top: 0;
  }
  h2 {
    font-size: 13px;
    font-weight: 400;
    line-height: 1.15;
    color: var(--quiet);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

/** A part of the panel beside the rows, with what it is over it. */
export function Group({ title, children }: { title: React.ReactNode; children: React.ReactNode }) {
  return (
    <Box>
      <h2>{title}</h2>
      {children}
    </Box>
  );
}

/** Targets side by side. */
export const Line = styled.div`
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: 3px;
  min-height: 40px;
  button {
    padding: 0 4px;
    min-height: 40px;
    font-size: 14px;
    line-height: 1.1;
    white-space: normal;
    min-width: 0;
  }
`;
