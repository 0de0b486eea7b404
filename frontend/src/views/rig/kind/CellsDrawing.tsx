import styled from "styled-components";

import type { KindDocument } from "../../../api/kinds";
import { NumberField } from "../../../ui/NumberField";
import { grid, withCells } from "./kindDocument";

const Drawing = styled.svg`
  width: 100%;
  height: 150px;
  background: var(--deep);
  circle {
    fill: transparent;
    stroke: #867c6f;
    cursor: pointer;
  }
  circle[data-chosen] {
    fill: #efe7d8;
    stroke: #efe7d8;
  }
  text {
    fill: #efe7d8;
    font-family: var(--numbers);
    pointer-events: none;
  }
  text[data-chosen] {
    fill: #14110e;
  }
`;
const Fields = styled.div`
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: end;
  padding-top: 6px;
  input {
    width: 3.4em;
    min-height: 30px;
  }
  [role="group"] {
    min-height: 32px;
  }
`;
const MOST_NUMBERS = 40;

interface Props {
  document: KindDocument;
  cell: number;
  readOnly: boolean;
  onCell: (cell: number) => void;
  onChange: (document: KindDocument) => void;
}

/** The cells as they stand beside the fixture, seen from the front; one of them is looked at. */
export function CellsDrawing({ document, cell, readOnly, onCell, onChange }: Props) {
  const { cells } = document;
  const columns = new Set(cells.map(([x]) => x)).size || 1;
  const rows = Math.max(1, Math.round(cells.length / columns));
  const xs = cells.map(([x]) => x);
  const ys = cells.map(([, y]) => y);
  const wide = Math.max(...xs) - Math.min(...xs);
  const high = Math.max(...ys) - Math.min(...ys);
  const apart =
    cells.length > 1 ? Math.max(wide / Math.max(columns - 1, 1), high / Math.max(rows - 1, 1)) : 0.1;
  const unit = apart || 0.1;
  const own = cells[cell - 1];
  const regrid = (now: { columns?: number; rows?: number; apart?: number }) =>
    onChange(
      withCells(
        document,
        grid(now.columns ?? columns, now.rows ?? rows, now.apart ?? Math.round(unit * 1000) / 1000),
        [],
      ),
    );
  return (
    <div>
      <Drawing
        viewBox={`${Math.min(...xs) - unit} ${-Math.max(...ys) - unit} ${wide + 2 * unit} ${high + 2 * unit}`}
        role="group"
        aria-label={`${cells.length} cells as they stand`}
      >
        {cells.map(([x, y], n) => (
          <g key={n} onClick={() => onCell(n + 1)}>
            <circle
              cx={x}
              cy={-y}
              r={unit * 0.42}
              strokeWidth={unit * 0.04}
              data-chosen={n + 1 === cell || undefined}
            />
            {cells.length <= MOST_NUMBERS && (
              <text
                x={x}
                y={-y + unit * 0.12}
                fontSize={unit * 0.34}
                textAnchor="middle"
                data-chosen={n + 1 === cell || undefined}
              >
                {n + 1}
              </text>
            )}
          </g>
        ))}
      </Drawing>
      <Fields>
        <NumberField
          label="Cell looked at"
          minValue={1}
          maxValue={cells.length}
          value={cell}
          onChange={(value) => value >= 1 && onCell(value)}
        />
        {(["x", "y", "z"] as const).map((axis, k) => (
          <NumberField
            key={axis}
            label={`its ${axis}`}
            unit="m"
            step={0.01}
            isDisabled={readOnly}
            value={own?.[k] ?? 0}
            onChange={(value) =>
              onChange({
                ...document,
                cells: cells.map((place, n) =>
                  n === cell - 1 ? (place.map((one, at) => (at === k ? value : one)) as typeof place) : place,
                ),
              })
            }
          />
        ))}
        <NumberField
          label="In a grid of"
          minValue={1}
          maxValue={256}
          isDisabled={readOnly}
          value={columns}
          onChange={(value) => value >= 1 && regrid({ columns: value })}
        />
        <NumberField
          label="by"
          minValue={1}
          maxValue={256}
          isDisabled={readOnly}
          value={rows}
          onChange={(value) => value >= 1 && regrid({ rows: value })}
        />
        <NumberField
          label="apart"
          unit="m"
          step={0.01}
          minValue={0.001}
          isDisabled={readOnly}
          value={Math.round(unit * 1000) / 1000}
          onChange={(value) => value > 0 && regrid({ apart: value })}
        />
      </Fields>
    </div>
  );
}
