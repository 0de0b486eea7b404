import { Label, ProgressBar } from "react-aria-components";
import styled from "styled-components";

import { Button } from "./Button";

const Frame = styled(ProgressBar)`
  display: grid;
  grid-template-columns: auto minmax(160px, 1fr) auto auto;
  align-items: center;
  gap: 12px;
  font-size: 15px;
  .numbers {
    font-family: var(--numbers);
    min-width: 4ch;
    text-align: right;
  }
`;
const Track = styled.div`
  height: 16px;
  border: 1px solid var(--edge);
  div {
    height: 100%;
    background: var(--strokes);
  }
`;

interface Props {
  label: string;
  /** 0…1. */
  share: number;
  onStop?: () => void;
}

/** How far something is, and a way to stop it. */
export function Progress({ label, share, onStop }: Props) {
  return (
    <Frame value={share * 100}>
      {({ percentage = 0 }) => (
        <>
          <Label>{label}</Label>
          <Track>
            <div style={{ width: `${percentage}%` }} />
          </Track>
          <span className="numbers">{Math.round(percentage)} %</span>
          {onStop && <Button onPress={onStop}>Stop</Button>}
        </>
      )}
    </Frame>
  );
}
