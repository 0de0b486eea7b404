import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { Choice } from "../../../ui/Choice";

const Row = styled.div`
  display: grid;
  grid-template-columns: 128px minmax(80px, 1fr) 132px;
  gap: 8px;
  align-items: center;
  font-size: 14px;
  > button {
    text-align: left;
    background: none;
    border: 1px solid transparent;
    color: var(--bone);
    font: inherit;
    cursor: pointer;
    white-space: nowrap;
    min-height: 23px;
    line-height: 1.1;
    &[aria-checked="true"] {
      background: var(--bone);
      color: var(--on-bone);
    }
  }
  button {
    min-height: 23px;
    line-height: 1.1;
  }
`;
const Strip = styled.div`
  position: relative;
  height: 16px;
  &::after {
    content: "";
    position: absolute;
    top: -3px;
    bottom: -3px;
    left: calc(var(--share) * 100% - 1px);
    width: 2px;
    background: var(--bone);
  }
`;

interface Props {
  way: Schemas["WayView"];
  seen: Schemas["SeenWay"];
  share: number;
  isChosen: boolean;
  onChoose: () => void;
  seenOn: string;
  options: string[];
  onSeenOn: (name: string) => void;
}

/** One way between two colours as a strip, and on which lights it is seen. */
export function WayRow({ way, seen, share, isChosen, onChoose, seenOn, options, onSeenOn }: Props) {
  const last = seen.strip.length - 1;
  const stops = seen.strip.map((colour, n) => `${colour} ${(n / last) * 100}%`).join(", ");
  return (
    <Row>
      <button type="button" role="radio" aria-checked={isChosen} onClick={onChoose}>
        {way.label}
      </button>
      <Strip
        role="img"
        aria-label={`${way.label}: half way ${seen.middle}`}
        style={{ background: `linear-gradient(90deg, ${stops})`, "--share": share } as React.CSSProperties}
      />
      <Choice
        label={`${way.label}: seen on`}
        hideLabel
        options={options.map((text) => ({ id: text, text: text === "nobody" ? "see it on …" : text }))}
        value={seenOn}
        onChange={(name) => onSeenOn(String(name))}
      />
    </Row>
  );
}
