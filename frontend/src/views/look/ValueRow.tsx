import { useEffect, useRef, useState } from "react";
import styled from "styled-components";

import type { useHand } from "../../api/hand";
import { Slider } from "../../ui/Slider";
import { TextField } from "../../ui/TextField";
import { Origin } from "./Origin";
import { beginsValue, inWords, lacking, stepOf, type Value } from "./values";

const Row = styled.div`
  display: grid;
  grid-template-columns: 66px minmax(60px, 1fr) 118px 17px 74px;
  gap: 0 8px;
  @media (max-width: 1180px) {
    grid-template-columns: 60px minmax(44px, 1fr) 92px 16px 56px;
    gap: 0 6px;
  }
  align-items: center;
  min-height: 32px;
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

interface Props {
  value: Value;
  chosen: number;
  hand: ReturnType<typeof useHand>;
}

/** One attribute of the selection: slide it (with Shift: each by the same difference), or type it. */
export function ValueRow({ value, chosen, hand }: Props) {
  const { low, high, attribute, label, unit, heads } = value;
  const [held, setHeld] = useState<number | null>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const drag = useRef<{ from: number; relative: boolean }>({ from: value.value, relative: false });
  const timer = useRef(0);
  const [seen, setSeen] = useState(value);
  if (seen !== value) {
    setSeen(value);
    setHeld(null); // what was kept has come back
  }
  useEffect(() => () => clearTimeout(timer.current), []);
  const base = { attribute, heads };
  const moved = (to: number) =>
    drag.current.relative ? { ...base, by: to - drag.current.from } : { ...base, to };
  const keep = (to: number) => {
    clearTimeout(timer.current);
    setHeld(to);
    const body = moved(to);
    drag.current = { from: to, relative: false }; // what comes next by keys is a value again
    void hand.commit(body).then((done) => done || setHeld(null));
  };
  const enter = () => {
    if (typed !== null && typed.trim()) void hand.commit({ ...base, text: typed });
    setTyped(null);
  };
  function keys(event: React.KeyboardEvent) {
    const step = stepOf(event.key, event.shiftKey);
    if (step !== null) {
      event.preventDefault();
      event.stopPropagation();
      setTyped(null);
      void hand.commit({ ...base, by: step });
    } else if (event.target !== field.current && beginsValue(event.key)) {
      event.preventDefault();
      setTyped(event.key);
      field.current?.focus();
    }
  }
  return (
    <Row role="group" aria-label={label} onKeyDownCapture={keys}>
      <span>{label}</span>
      <div
        onPointerDownCapture={(event) =>
          (drag.current = { from: held ?? value.value, relative: event.shiftKey })
        }
      >
        <Slider
          bare
          label={`${label}, slider`}
          minValue={low}
          maxValue={high}
          step={(high - low) / 1000}
          value={held ?? value.value}
          onChange={(to) => {
            setHeld(to);
            hand.preview(moved(to));
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
        value={typed ?? (held === null ? inWords(value) : inWords({ least: held, most: held, mixed: false }))}
        onFocus={() => typed === null && field.current?.select()}
        onChange={setTyped}
        onBlur={enter}
        onKeyDown={(event) => {
          if (event.key === "Enter") enter();
          else if (event.key === "Escape") setTyped(null);
        }}
      />
      <span aria-hidden="true">{unit === "slot" ? "" : unit}</span>
      <Origin value={value}>{lacking(value, chosen)}</Origin>
    </Row>
  );
}
