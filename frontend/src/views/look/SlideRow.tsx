import { useEffect, useRef, useState } from "react";
import styled from "styled-components";

import { Slider } from "../../ui/Slider";
import { TextField } from "../../ui/TextField";
import { beginsValue, stepOf } from "./values";

const Row = styled.div`
  display: grid;
  grid-template-columns: var(--columns);
  gap: 0 8px;
  align-items: center;
  min-height: 32px;
  font-size: 14px;
  @media (max-width: 1180px) {
    grid-template-columns: var(--narrow-columns);
    gap: 0 6px;
  }
  input[type="text"] {
    font: 14px var(--numbers);
    text-align: right;
    min-height: 28px;
    padding: 0 6px;
    width: 100%;
  }
`;
const HOLD_MS = 500;
const STEPS = 1000;

interface Props {
  label: string;
  unit: string;
  low: number;
  high: number;
  value: number;
  /** The value in words, as long as nothing is typed. */
  shown: string;
  /** Widths of label, slider, field, unit and what is behind them. */
  columns: string;
  narrow: string;
  onSlide: (to: number) => void;
  onKeep: (to: number) => void;
  onTyped: (text: string) => void;
  /** An arrow key changes it by so much. */
  onStep: (by: number) => void;
  /** The pointer takes the slider. */
  onGrab?: (event: React.PointerEvent) => void;
  children?: React.ReactNode;
}

/** A value to slide or to type: keys that begin a value go into the field, arrows change it by 1, with Shift by 10, with Alt by 0.1. */
export function SlideRow(props: Props) {
  const { label, unit, value, low, high, shown, columns, narrow, onSlide, onKeep, onTyped, onStep, onGrab } =
    props;
  const [typed, setTyped] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const timer = useRef(0);
  useEffect(() => () => clearTimeout(timer.current), []);
  const keep = (to: number) => {
    clearTimeout(timer.current);
    onKeep(to);
  };
  function enter() {
    if (typed !== null && typed.trim()) onTyped(typed);
    setTyped(null);
  }
  function keys(event: React.KeyboardEvent) {
    const step = stepOf(event.key, event);
    if (step !== null) {
      event.preventDefault();
      event.stopPropagation();
      setTyped(null);
      onStep(step);
    } else if (event.target !== field.current && beginsValue(event.key)) {
      event.preventDefault();
      setTyped(event.key);
      field.current?.focus();
    }
  }
  return (
    <Row
      role="group"
      aria-label={label}
      onKeyDownCapture={keys}
      style={{ "--columns": columns, "--narrow-columns": narrow } as React.CSSProperties}
    >
      <span>{label}</span>
      <div onPointerDownCapture={onGrab}>
        <Slider
          bare
          label={`${label}, slider`}
          minValue={low}
          maxValue={high}
          step={(high - low) / STEPS}
          value={value}
          onChange={(to) => {
            onSlide(to);
            clearTimeout(timer.current);
            timer.current = window.setTimeout(() => keep(to), HOLD_MS);
          }}
          onChangeEnd={keep}
        />
      </div>
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
      {props.children}
    </Row>
  );
}
