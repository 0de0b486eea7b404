import {
  ColorArea,
  ColorField,
  ColorPicker,
  ColorSlider,
  ColorThumb,
  Input,
  Label,
  parseColor,
  SliderTrack,
  type Color,
} from "react-aria-components";
import { useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useColourHand } from "../../../api/hand";

const Box = styled.div`
  display: grid;
  gap: 8px;
  label {
    display: flex;
    justify-content: space-between;
    align-items: center;
  }
  input {
    width: 104px;
    min-height: 40px;
    background: transparent;
    color: var(--bone);
    border: 1px solid var(--edge);
    font: 15px var(--numbers);
    padding: 0 10px;
  }
`;
const Area = styled(ColorArea)`
  width: 100%;
  height: 96px;
  border-radius: 2px;
`;
const Thumb = styled(ColorThumb)`
  width: 20px;
  height: 20px;
  border: 2px solid var(--stage-bone);
  outline: 2px solid var(--stage-ink);
  border-radius: 50%;
  &[data-focus-visible] {
    width: 28px;
    height: 28px;
  }
`;
const Track = styled(SliderTrack)`
  height: 28px;
  border-radius: 2px;
  ${Thumb} {
    top: 50%;
  }
`;
const FieldRow = styled(ColorField)`
  display: flex;
  justify-content: space-between;
  align-items: center;
`;
type Base = Schemas["BaseValueView"];
const PERCENT = 100;
const nothing = () => undefined;

interface Props {
  /** Red, green and blue. */
  base: Base[];
}

/** The base colour: drives of red, green and blue, as they stand. */
export function BaseColour({ base }: Props) {
  const able = base[0]!.heads;
  const [red, green, blue] = base.map((one) => Math.round(one.value * 255));
  const [held, setHeld] = useState<Color | null>(null);
  const hand = useColourHand(nothing);
  const colour = held ?? parseColor(`rgb(${red}, ${green}, ${blue})`).toFormat("hsb");
  const stands = base.map((one) => one.value).join();
  const [seen, setSeen] = useState(stands);
  if (seen !== stands) {
    setSeen(stands);
    setHeld(null); // what was kept has come back
  }
  const picked = (next: Color) => {
    const rgb = next.toFormat("rgb");
    const numbers = (["red", "green", "blue"] as const).map(
      (one) => (rgb.getChannelValue(one) / 255) * PERCENT,
    );
    return { heads: able, picker: "rgb", numbers };
  };
  const preview = (next: Color) => {
    setHeld(next);
    hand.preview(picked(next));
  };
  const keep = (next: Color) => {
    setHeld(next);
    void hand.commit(picked(next)).then((kept) => kept || setHeld(null));
  };
  return (
    <Box>
      <ColorPicker value={colour} onChange={preview}>
        <FieldRow>
          <Label>Colour</Label>
          <Input
            onBlur={() => held && keep(held)}
            onKeyDown={(event) => event.key === "Enter" && held && keep(held)}
          />
        </FieldRow>
        <Area
          colorSpace="hsb"
          xChannel="saturation"
          yChannel="brightness"
          onChangeEnd={keep}
          aria-label="Saturation and brightness"
        >
          <Thumb />
        </Area>
        <ColorSlider channel="hue" colorSpace="hsb" onChangeEnd={keep} aria-label="Hue">
          <Track>
            <Thumb />
          </Track>
        </ColorSlider>
      </ColorPicker>
    </Box>
  );
}
