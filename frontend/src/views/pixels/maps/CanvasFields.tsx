import styled from "styled-components";

import { usePixelTables, type Canvas } from "../../../api/pixels";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { sidesFor } from "./sides";

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
`;
const KINDS = [
  { id: "front", text: "Where they stand, seen from the front" },
  { id: "plan", text: "Where they stand, seen from above" },
  { id: "grid", text: "A drawn grid" },
];
const kindOf = (canvas: Canvas) => (canvas.kind === "grid" ? "grid" : (canvas.view ?? "front"));

/** How the cells of a canvas lie. */
export function CanvasFields({ canvas, onChange }: { canvas: Canvas; onChange: (canvas: Canvas) => void }) {
  const { data: tables } = usePixelTables();
  const change = (part: Partial<Canvas>) => onChange({ ...canvas, ...part });
  const orders = (tables?.orders ?? []).map((one) => ({ id: one.name, text: one.label }));
  const number = (label: string, name: "columns" | "rows", high: number) => (
    <NumberField
      label={label}
      minValue={1}
      maxValue={high}
      value={canvas[name] ?? 16}
      onChange={(value) => Number.isFinite(value) && change({ [name]: value })}
    />
  );
  const gap = (label: string, name: "gap_across" | "gap_down") => (
    <NumberField
      label={label}
      unit="%"
      minValue={0}
      maxValue={95}
      value={Math.round((canvas[name] ?? 0) * 100)}
      onChange={(value) => Number.isFinite(value) && change({ [name]: value / 100 })}
    />
  );
  return (
    <>
      <Choice
        label="Cells lie"
        options={KINDS}
        value={kindOf(canvas)}
        onChange={(id) =>
          change(
            id === "grid"
              ? { kind: "grid", ...sidesFor(canvas) }
              : { kind: "stage", view: id as "front" | "plan" },
          )
        }
      />
      {canvas.kind === "grid" && (
        <>
          <Pair>
            {number("Columns", "columns", 1024)}
            {number("Rows", "rows", 1024)}
          </Pair>
          <Choice
            label="Order of cells"
            options={orders}
            value={canvas.order ?? "rows from top left"}
            onChange={(order) => change({ order: String(order) })}
          />
          <Pair>
            {gap("Gap across", "gap_across")}
            {gap("Gap down", "gap_down")}
          </Pair>
        </>
      )}
    </>
  );
}
