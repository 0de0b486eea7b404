import { useEffect, useRef, useState } from "react";
import styled from "styled-components";

import type { Picker } from "../../../api/colour";
import { Slider } from "../../../ui/Slider";
import { TextField } from "../../../ui/TextField";
import { beginsValue, stepOf } from "../values";

type Part = Picker["parts"][number];

const Row = styled.div`
  display: grid;
  grid-template-columns: 84px minmax(60px, 1fr) 72px 18px;
  gap: 8px;
  @media (max-width: 1180px) {
    grid-template-columns: 72px minmax(40px, 1fr) 64px 16px;
    gap: 6px;
  }
  align-items: center;
  min-height: 30px;
  font-size: 14px;
  input[type="text"] {
    font: 14px var(--numbers);
    text-align: right;
    min-height: 28px;
    padding: 0 6px;
    width: 100%;
  }
`;
const HOLD_MS = 500;
/** A range this small has steps of a thousandth, others of one. */
const SMALL = 2;

interface Props {
  part: Part;
  value: number;
  onPick: (value: number, kept: boolean) => void;
}

/** One number of a way to pick a colour: slide it, or type it. */
export function PartRow({ part, value, onPick }: Props) {
  const { label, unit, low, high } = part;
  const small = high - low < SMALL;
  const [typed, setTyped] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const timer = useRef(0);
  useEffect(() => () => clearTimeout(timer.current), []);
  const shown = String(small ? Math.round(value * 1000) / 1000 : Math.round(value)).replace("-", "−");
  const within = (to: number) => Math.min(Math.max(to, low), high);
  const keep = (to: number) => {
    clearTimeout(timer.current);
    onPick(within(to), true);
  };
  function enter() {
    const number = typed === null ? NaN : Number(typed.replace(",", ".").replace("−", "-"));
    if (Number.isFinite(number) && typed!.trim()) keep(number);
    setTyped(null);
  }
  function keys(event: React.KeyboardEvent) {
    const step = stepOf(event.key, event.shiftKey);
    if (step !== null) {
      event.preventDefault();
      event.stopPropagation();
      setTyped(null);
      keep(value + step * (small ? 0.01 : 1));
    } else if (event.target !== field.current && beginsValue(event.key)) {
      event.preventDefault();
      setTyped(event.key);
      field.current?.focus();
    }
  }
  return (
    <Row role="group" aria-label={label} onKeyDownCapture={keys}>
      <span>{label}</span>
      <Slider
        bare
        label={`${label}, slider`}
        minValue={low}
        maxValue={high}
        step={(high - low) / 1000}
        value={within(value)}
        onChange={(to) => {
          onPick(to, false);
          clearTimeout(timer.current);
          timer.current = window.setTimeout(() => keep(to), HOLD_MS);
        }}
        onChangeEnd={keep}
      />
      <TextField
        label={label}
        hideLabel
        inputRef={field}
        value={typed ?? shown}
        onFocus={() => typed === null && field.current?.select()}
        onChange={setTyped}
        onBlur={enter}
        onKeyDown={(event) => {
          if (event.key === "Enter") enter();
          else if (event.key === "Escape") setTyped(null);
        }}
      />
      <span aria-hidden="true">{unit}</span>
    </Row>
  );
}
