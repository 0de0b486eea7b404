import { memo, useEffect, useRef, useState } from "react";
import styled from "styled-components";

import { NumberField } from "../../../../ui/NumberField";
import { Slider } from "../../../../ui/Slider";
import type { SlotProps } from "./Slot";
import { outOfRange } from "./ranges";
import { usePreviews } from "./usePreviews";

const Panel = styled.div`
  display: grid;
  gap: 8px;
  width: 280px;
`;
const Problem = styled.p`
  font-size: 14px;
  border-left: 6px solid transparent;
  border-image: var(--hatch) 6;
  padding-left: 8px;
`;
const Limits = styled.div`
  display: flex;
  justify-content: space-between;
  color: var(--quiet);
  font: 13px var(--numbers);
`;

function NumberControl({ part, editor, typed, close }: SlotProps) {
  const scale = part.scale ?? 1;
  const [low, high, step] = [(part.low ?? 0) * scale, (part.high ?? 100) * scale, (part.step ?? 1) * scale];
  const [value, setValue] = useState(Number((Number(part.value) * scale).toFixed(6)));
  const [typedText, setTypedText] = useState("");
  const problem = outOfRange(typedText, low, high, part.unit ?? "");
  const panel = useRef<HTMLDivElement>(null);
  const { shown, keepLatest } = usePreviews(editor, part.slot!, scale, value);

  // typed on the closed value: the digits so far are the number, and more may come in the field
  useEffect(() => {
    const input = panel.current?.querySelector("input");
    const number = Number(typed);
    if (!typed || !input || !Number.isFinite(number)) return;
    setValue(number);
    shown(number, false);
    input.focus();
    const end = window.setTimeout(() => input.setSelectionRange(input.value.length, input.value.length), 0);
    return () => clearTimeout(end);
    // only when another key was typed
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [typed]);

  function change(next: number, keepIt: boolean) {
    setValue(next);
    shown(next, !keepIt);
    if (keepIt) keepLatest();
  }
  const text = (number: number) =>
    `${Math.round(number * 100) / 100}${part.unit === "°" ? "°" : ` ${part.unit ?? ""}`}`;
  return (
    <Panel ref={panel}>
      <NumberField
        label={part.label ?? "Value"}
        row
        unit={part.unit ?? undefined}
        minValue={low}
        maxValue={high}
        step={step < 1 ? undefined : step}
        formatOptions={{ maximumFractionDigits: 3, useGrouping: false }}
        value={value}
        onChange={(next) => Number.isFinite(next) && change(next, true)}
        onTyped={setTypedText}
        focused
        onKeyDown={(event) => {
          if (event.key === "Enter") window.setTimeout(close, 0);
        }}
      />
      {problem && <Problem role="alert">{problem}</Problem>}
      <Slider
        bare
        label={part.label ?? "Value"}
        minValue={low}
        maxValue={high}
        step={step}
        value={value}
        onChange={(next) => change(next, false)}
        onChangeEnd={(next) => change(next, true)}
      />
      <Limits aria-hidden="true">
        <span>{text(low)}</span>
        <span>{text(high)}</span>
      </Limits>
    </Panel>
  );
}

const limits = ({ part: { slot, label, unit, low, high, step, scale }, typed }: SlotProps) =>
  JSON.stringify([slot, label, unit, low, high, step, scale, typed]);

/** A number with its unit: slide to preview, let go to keep; or type it. What it is set to here comes back as the part's
 * value, which changes nothing in it. */
export const NumberSlot = memo(NumberControl, (a, b) => a.editor === b.editor && limits(a) === limits(b));
