import {
  Label,
  Slider as AriaSlider,
  SliderOutput,
  SliderThumb,
  SliderTrack,
  type SliderProps,
} from "react-aria-components";
import styled from "styled-components";

const Frame = styled(AriaSlider<number>)`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 8px;
  width: 100%;
  &[data-variant="bare"] {
    display: block;
    line-height: 0;
  }
`;
const Output = styled(SliderOutput)`
  font-family: var(--numbers);
  font-size: 14px;
`;
const Track = styled(SliderTrack)`
  grid-column: 1 / 3;
  height: 32px;
  position: relative;
  cursor: pointer;
  touch-action: none;
  &::before {
    content: "";
    position: absolute;
    inset: 8px 0;
    border: 1px solid var(--edge);
  }
  &::after {
    content: "";
    position: absolute;
    top: 11px;
    bottom: 11px;
    left: 3px;
    width: calc((100% - 6px) * var(--fill));
    background: var(--strokes);
  }
`;
const Thumb = styled(SliderThumb)`
  top: 16px;
  width: 10px;
  height: 26px;
  background: var(--bone);
  border: 2px solid var(--ink);
  border-radius: 2px;
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
    outline-offset: 1px;
  }
`;

interface Props extends Omit<SliderProps<number>, "children"> {
  label: string;
  unit?: string;
  bare?: boolean;
  /** The value in words, instead of the number with its unit. */
  words?: (value: number) => string;
}

/** A level drawn as close strokes. `bare`: without its label and number, which are said aside. */
export function Slider({ label, unit = "", bare = false, words, ...props }: Props) {
  return (
    <Frame {...props} {...(bare ? { "aria-label": label } : {})} data-variant={bare ? "bare" : "full"}>
      {!bare && <Label>{label}</Label>}
      {!bare && (
        <Output>
          {({ state }) =>
            words?.(state.values[0]!) ??
            `${Math.round(state.values[0]! * 100) / 100}${unit === "°" ? "°" : unit && ` ${unit}`}`
          }
        </Output>
      )}
      <Track style={({ state }) => ({ "--fill": state.getThumbPercent(0) }) as React.CSSProperties}>
        <Thumb />
      </Track>
    </Frame>
  );
}
