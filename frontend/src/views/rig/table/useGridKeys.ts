import { useRef } from "react";

import type { GridColumn } from "./columns";

export interface Cell {
  row: number;
  column: number;
}
interface Options {
  at: Cell;
  /** Numbers of the fixtures shown, in their order. */
  rows: readonly number[];
  columns: readonly GridColumn[];
  selected: ReadonlySet<number>;
  /** Edit the cell; with a text in place of what is there. */
  begin: (text?: string) => void;
  move: (cell: Cell) => void;
  onSelect: (numbers: number[]) => void;
  onDelete: () => void;
}

const PAGE = 12;
/** How far a key moves the cell: rows, columns; null: another key. */
export function step(key: string, ctrl: boolean, rows: number, columns: number): [number, number] | null {
  const moves: Record<string, [number, number]> = {
    ArrowDown: [ctrl ? rows : 1, 0],
    ArrowUp: [ctrl ? -rows : -1, 0],
    ArrowRight: [0, ctrl ? columns : 1],
    ArrowLeft: [0, ctrl ? -columns : -1],
    PageDown: [PAGE, 0],
    PageUp: [-PAGE, 0],
    Home: [ctrl ? -rows : 0, -columns],
    End: [ctrl ? rows : 0, columns],
  };
  return moves[key] ?? null;
}

/** A spreadsheet's keys and presses: moving, choosing rows, beginning to type. */
export function useGridKeys({ at, rows, columns, selected, begin, move, onSelect, onDelete }: Options) {
  /** Where a stretch of chosen rows begins. */
  const from = useRef(0);
  const within = (value: number, count: number) => Math.min(Math.max(value, 0), Math.max(count - 1, 0));
  const moved = (rowsOn: number, columnsOn: number): Cell => ({
    row: within(at.row + rowsOn, rows.length),
    column: within(at.column + columnsOn, columns.length),
  });
  const stretch = (row: number) =>
    rows.slice(Math.min(from.current, row), Math.max(from.current, row) + 1) as number[];

  function onKeyDown(event: React.KeyboardEvent) {
    const ctrl = event.ctrlKey || event.metaKey;
    const on = step(event.key, ctrl, rows.length, columns.length);
    const take = () => {
      event.preventDefault();
      event.stopPropagation();
    };
    if (on) {
      take();
      const cell = moved(...on);
      move(cell);
      if (event.shiftKey) onSelect(stretch(cell.row));
      else from.current = cell.row;
    } else if (event.key === "Tab") {
      const cell = moved(0, event.shiftKey ? -1 : 1);
      if (cell.column === at.column) return; // at an end: the focus goes on
      take();
      move(cell);
    } else if (event.key === "Enter" || event.key === "F2") {
      take();
      begin();
    } else if (event.key === " ") {
      take();
      const number = rows[at.row];
      if (number !== undefined)
        onSelect(
          selected.has(number) ? [...selected].filter((one) => one !== number) : [...selected, number],
        );
      from.current = at.row;
    } else if (ctrl && event.key.toLowerCase() === "a") {
      take();
      onSelect([...rows]);
    } else if (event.key === "Delete" || event.key === "Backspace") {
      take();
      onDelete();
    } else if (event.key.length === 1 && !ctrl && !event.altKey) {
      take();
      begin(event.key);
    }
  }
  function press(cell: Cell, event: React.PointerEvent) {
    if (event.button) return;
    move(cell);
    const number = rows[cell.row]!;
    if (event.shiftKey) onSelect(stretch(cell.row));
    else if (event.ctrlKey || event.metaKey)
      onSelect(selected.has(number) ? [...selected].filter((one) => one !== number) : [...selected, number]);
    else if (!(selected.has(number) && selected.size > 1)) onSelect([number]);
    if (!event.shiftKey) from.current = cell.row;
  }
  return { onKeyDown, press, go: ({ row = 0, column = 0 }: Partial<Cell>) => move(moved(row, column)) };
}
