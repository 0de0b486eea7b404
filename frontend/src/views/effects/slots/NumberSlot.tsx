import { useEffect, useRef, useState } from "react";
import styled from "styled-components";

import { NumberField } from "../../../ui/NumberField";
import { Slider } from "../../../ui/Slider";
import type { SlotProps } from "./Slot";

const Panel = styled.div`
  display: grid;
  gap: 8px;
  width: 280px;
`;
const Limits = styled.div`
  display: flex;
  justify-content: space-between;
  color: var(--quiet);
  font: 13px var(--numbers);
`;
const COMMIT_AFTER_MS = 500;

/** A number with its unit: slide to preview, let go to keep; or type it. */
export function NumberSlot({ part, editor, typed, close }: SlotProps) {
  const scale = part.scale ?? 1;
  const [low, high, step] = [(part.low ?? 0) * scale, (part.high ?? 100) * scale, (part.step ?? 1) * scale];
  const [value, setValue] = useState(typed && typed !== "-" ? Number(typed) : Number(part.value) * scale);
  const pending = useRef<{ timer: number; value: number } | null>(null);
  const field = useRef<HTMLDivElement>(null);
  const change = (shown: number) => ({
    operation: "set" as const,
    path: part.slot!,
    value: Number((shown / scale).toFixed(6)),
  });

  function preview(shown: number) {
    setValue(shown);
    editor.preview(change(shown));
    clearTimeout(pending.current?.timer);
    pending.current = { value: shown, timer: window.setTimeout(() => keep(shown), COMMIT_AFTER_MS) };
  }
  function keep(shown: number) {
    clearTimeout(pending.current?.timer);
    pending.current = null;
    setValue(shown);
    if (shown !== Number(part.value) * scale || editor.effect) void editor.commit(change(shown));
  }
  useEffect(() => {
    if (!typed || !field.current) return;
    const input = field.current.querySelector("input");
    input?.focus();
    input?.setSelectionRange(1, 1);
  }, [typed]);
  // closed while a preview waits to be kept: keep it
  useEffect(
    () => () => {
      if (pending.current) {
        clearTimeout(pending.current.timer);
        void editor.commit(change(pending.current.value));
      }
    },
    // only when it closes
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  );
  const text = (number: number) =>
    `${Math.round(number * 100) / 100}${part.unit === "°" ? "°" : ` ${part.unit ?? ""}`}`;
  return (
    <Panel ref={field}>
      <NumberField
        label={part.label ?? "Value"}
        row
        unit={part.unit ?? undefined}
        minValue={low}
        maxValue={high}
        step={step < 1 ? undefined : step}
        formatOptions={{ maximumFractionDigits: 3, useGrouping: false }}
        value={value}
        onChange={(next) => Number.isFinite(next) && next !== value && keep(next)}
        focused
        onKeyDown={(event) => {
          if (event.key === "Enter") window.setTimeout(close, 0);
        }}
      />
      <Slider
        bare
        label={part.label ?? "Value"}
        minValue={low}
        maxValue={high}
        step={step}
        value={value}
        onChange={preview}
        onChangeEnd={keep}
      />
      <Limits aria-hidden="true">
        <span>{text(low)}</span>
        <span>{text(high)}</span>
      </Limits>
    </Panel>
  );
}
