import { Slider, SliderThumb, SliderTrack } from "react-aria-components";
import styled from "styled-components";

import { useHeld } from "./useHeld";

const Frame = styled(Slider<number>)`
  position: relative;
  height: 100%;
  min-width: 0;
  &[data-orientation="horizontal"] {
    width: 100%;
    display: block;
  }
`;
const Track = styled(SliderTrack)`
  width: 100%;
  height: 100%;
  border: 1px solid var(--edge);
  cursor: pointer;
  touch-action: none;
  overflow: hidden;
  &::before {
    content: "";
    position: absolute;
    left: 2px;
    top: 2px;
    bottom: 2px;
    width: calc((100% - 4px) * var(--fill));
    background: var(--strokes);
    opacity: 0.75;
  }
  &[data-orientation="vertical"]::before {
    top: auto;
    width: auto;
    right: 2px;
    height: calc((100% - 4px) * var(--fill));
    background: repeating-linear-gradient(0deg, var(--bone) 0 2px, transparent 2px 4px);
  }
`;
const Thumb = styled(SliderThumb)`
  width: 4px;
  height: 100%;
  top: 50%;
  background: var(--bone);
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
    outline-offset: 2px;
  }
  [data-orientation="vertical"] > & {
    top: auto;
    left: 50%;
    width: 100%;
    height: 4px;
  }
`;
const Words = styled.span`
  position: absolute;
  right: 4px;
  top: 50%;
  transform: translateY(-50%);
  padding: 0 3px;
  background: var(--ink);
  font: 14px var(--numbers);
  line-height: 1.3;
  pointer-events: none;
  small {
    display: block;
    font: 11px var(--words);
    text-align: right;
  }
  &[data-low] {
    top: auto;
    bottom: 3px;
    right: auto;
    left: 50%;
    transform: translateX(-50%);
    white-space: nowrap;
  }
`;

interface Props {
  label: string;
  /** As it is told; while a hand moves it, what the hand says. */
  value: number;
  low?: number;
  high?: number;
  step?: number;
  words: (value: number) => string;
  /** A word under the value: what it is of. */
  foot?: string;
  onMove: (value: number) => void;
  vertical?: boolean;
  isDisabled?: boolean;
}

/** A fader that is all target: close strokes as far as it is up, and its value in it. */
export function Fader({
  foot,
  label,
  value,
  low = 0,
  high = 100,
  step = 1,
  words,
  onMove,
  vertical,
  isDisabled,
}: Props) {
  const [shown, move] = useHeld(value, onMove);
  const now = Math.min(Math.max(shown, low), high);
  return (
    <Frame
      aria-label={label}
      orientation={vertical ? "vertical" : "horizontal"}
      minValue={low}
      maxValue={high}
      step={step}
      value={now}
      onChange={move}
      isDisabled={isDisabled}
    >
      <Track style={{ "--fill": (now - low) / (high - low) } as React.CSSProperties}>
        <Thumb />
      </Track>
      <Words aria-hidden="true" data-low={vertical || undefined}>
        {words(shown)}
        {foot && <small>{foot}</small>}
      </Words>
    </Frame>
  );
}
