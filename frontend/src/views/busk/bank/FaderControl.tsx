import { Slider, SliderThumb, SliderTrack } from "react-aria-components";
import styled from "styled-components";

import type { Control } from "../../../api/pages";
import { act, useLive } from "../../../live/socket";
import { useHeld } from "../../../ui/useHeld";
import { Label } from "./Label";

const Frame = styled(Slider<number>)`
  display: grid;
  grid-template-rows: 66px minmax(0, 1fr);
  border: 1px solid var(--edge);
  border-radius: 2px;
  min-height: 0;
  min-width: 0;
  position: relative;
  &[data-orientation="vertical"] {
    height: 100%;
  }
  &[data-gone] {
    border-style: dashed;
    color: var(--quiet);
  }
`;
const Track = styled(SliderTrack)`
  margin: 7px 0;
  width: 100%;
  min-height: 60px;
  cursor: pointer;
  touch-action: none;
  position: relative;
  &::after {
    content: "";
    position: absolute;
    left: 0;
    right: 0;
    bottom: 0;
    height: calc(100% * var(--fill));
    background: repeating-linear-gradient(0deg, var(--bone) 0 2px, transparent 2px 5px);
    opacity: 0.5;
  }
`;
const Thumb = styled(SliderThumb)`
  left: 50%;
  width: 100%;
  height: 12px;
  background: var(--bone);
  border: 2px solid var(--ink);
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
`;
const Value = styled.span`
  position: absolute;
  left: 0;
  right: 0;
  bottom: 3px;
  text-align: center;
  font: 14px var(--numbers);
  pointer-events: none;
  z-index: 1;
  span {
    background: var(--ink);
    padding: 0 3px;
  }
`;

/** A fader: what it is on and does, and how far it is up, in its own unit. */
export function FaderControl({ control }: { control: Control }) {
  const { low, high, unit } = control;
  const told = useLive((live) => live.state?.levels[control.key] ?? 0);
  const send = (now: number) => act({ do: "level", control: control.key, value: (now - low) / (high - low) });
  const [value, move] = useHeld(Math.round(low + told * (high - low)), send);
  return (
    <Frame
      orientation="vertical"
      minValue={low}
      maxValue={high}
      value={value}
      onChange={move}
      isDisabled={!!control.gone}
      data-gone={control.gone || undefined}
      aria-label={`${control.name}, ${control.does}`}
    >
      <Label control={control} />
      <Track style={{ "--fill": (value - low) / (high - low) } as React.CSSProperties}>
        <Thumb />
        <Value aria-hidden="true">
          <span>{`${value} ${unit}`}</span>
        </Value>
      </Track>
    </Frame>
  );
}
