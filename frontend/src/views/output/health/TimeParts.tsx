import styled from "styled-components";

const Bars = styled.div`
  display: grid;
  grid-template-columns: max-content 1fr max-content;
  gap: 2px 12px;
  align-items: center;
  max-width: 440px;
  b {
    text-align: right;
  }
`;
const Bar = styled.span`
  height: 8px;
  border-bottom: 1px solid var(--line);
  position: relative;
  &::before {
    content: "";
    position: absolute;
    inset: 0;
    width: calc(100% * var(--share));
    background: var(--strokes);
  }
`;
const TITLES: Record<string, string> = {
  actions: "Edits and actions",
  values: "Values",
  bytes: "Bytes",
  sending: "Sending",
  screens: "Screens",
};

/** What the time of a frame goes to; a full bar is all the time there is. */
export function TimeParts({ parts, budget }: { parts: Record<string, number>; budget: number }) {
  return (
    <Bars>
      {Object.entries(TITLES).map(([name, title]) => {
        const ms = parts[name] ?? 0;
        return [
          <span key={`${name} title`}>{title}</span>,
          <Bar
            key={`${name} bar`}
            aria-hidden="true"
            style={{ "--share": Math.min(1, ms / budget) } as React.CSSProperties}
          />,
          <b key={`${name} time`}>{ms.toFixed(2)} ms</b>,
        ];
      })}
    </Bars>
  );
}
