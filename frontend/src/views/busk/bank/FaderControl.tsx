import { Slider, SliderOutput, SliderThumb, SliderTrack, Text } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { act, useLive } from "../../../live/socket";
import { useHeld } from "../../../ui/useHeld";
import { ControlMenu } from "./ControlMenu";

const Frame = styled(Slider<number>)`
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto auto;
  border: 1px solid var(--edge);
  border-radius: 2px;
  min-height: 0;
  position: relative;
  &[data-orientation="vertical"] {
    height: 100%;
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
const Name = styled(Text)`
  display: block;
  padding: 6px 8px 0;
  font-size: 14px;
  line-height: 1.2;
  height: 42px;
  overflow: hidden;
`;
const Foot = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 0 0 0 8px;
  font: 14px var(--numbers);
  white-space: nowrap;
`;
const LET_GO_MS = 600;

/** A fader: how far it is up is how deep its effect goes. At the bottom the effect is off. */
export function FaderControl({ control }: { control: Schemas["ControlView"] }) {
  const told = useLive((live) => live.state?.levels[control.key] ?? 0);
  const send = (now: number) => act({ do: "level", control: control.key, value: now / 100 });
  const [value, move] = useHeld(Math.round(told * 100), send, LET_GO_MS);
  return (
    <Frame
      orientation="vertical"
      minValue={0}
      maxValue={100}
      value={value}
      onChange={move}
      aria-label={control.name}
    >
      <Track style={{ "--fill": value / 100 } as React.CSSProperties}>
        <Thumb />
      </Track>
      <Name title={control.waits || undefined}>
        {control.waits ? `${control.name}: waits, its group is empty` : control.name}
      </Name>
      <Foot>
        <SliderOutput>{() => `${value} %`}</SliderOutput>
        <ControlMenu control={control} />
      </Foot>
    </Frame>
  );
}
