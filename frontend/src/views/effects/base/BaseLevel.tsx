import { useEffect, useRef, useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import type { useHand } from "../../../api/hand";
import { NumberField } from "../../../ui/NumberField";
import { Slider } from "../../../ui/Slider";

const Row = styled.div`
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 2px 10px;
  .slider {
    grid-column: 1 / 3;
  }
  small {
    color: var(--quiet);
    font-size: 13px;
    margin-left: 6px;
  }
`;
const HOLD_MS = 600;

interface Props {
  base: Schemas["BaseValueView"];
  hand: ReturnType<typeof useHand>;
}

/** A base value in its own unit: slide or type. */
export function BaseLevel({ base, hand }: Props) {
  const { attribute, heads, label, unit } = base;
  const [held, setHeld] = useState<number | null>(null);
  const timer = useRef(0);
  const value = held ?? Math.round(base.value * 10) / 10;
  const keep = (next: number) => {
    clearTimeout(timer.current);
    setHeld(next);
    void hand.commit({ attribute, heads, to: next }).then((kept) => kept || setHeld(null));
  };
  useEffect(() => () => clearTimeout(timer.current), []);
  const [seen, setSeen] = useState(base);
  if (seen !== base) {
    setSeen(base);
    setHeld(null); // what was kept has come back
  }
  return (
    <Row>
      <span>
        {label}
        <small>{base.mixed ? "mixed" : base.by_hand ? "" : "home"}</small>
      </span>
      <NumberField
        label={label}
        hideLabel
        unit={unit}
        minValue={base.low}
        maxValue={base.high}
        formatOptions={{ maximumFractionDigits: 1, useGrouping: false }}
        value={value}
        onChange={(next) => Number.isFinite(next) && next !== value && keep(next)}
      />
      <div className="slider">
        <Slider
          bare
          label={`${label}, slider`}
          minValue={base.low}
          maxValue={base.high}
          value={value}
          onChange={(next) => {
            setHeld(next);
            hand.preview({ attribute, heads, to: next });
            clearTimeout(timer.current);
            timer.current = window.setTimeout(() => keep(next), HOLD_MS);
          }}
          onChangeEnd={keep}
        />
      </div>
    </Row>
  );
}
