import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";

import type { Fixture, Rig } from "../../../api/rig";
import { CellInput } from "./CellInput";
import { textToEdit, type GridColumn } from "./columns";
import { FixtureRow, ROW_PX } from "./FixtureRow";
import { useGridKeys, type Cell } from "./useGridKeys";

const Frame = styled.div`
  overflow: auto;
  height: 100%;
  font-size: 14px;
  outline: none;
  contain: strict;
`;
const Head = styled.div`
  position: sticky;
  top: 0;
  z-index: 2;
  display: flex;
  background: var(--ink);
  border-bottom: 1px solid var(--line);
  [role="columnheader"] {
    flex: none;
  }
  button {
    all: unset;
    width: 100%;
    padding: 0 6px;
    height: 32px;
    line-height: 32px;
    color: var(--quiet);
    cursor: pointer;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    box-sizing: border-box;
  }
  button:focus-visible {
    outline: 2px solid var(--focus);
    outline-offset: -2px;
  }
  button[data-number] {
    text-align: right;
  }
`;
interface Props {
  rig: Rig;
  rows: Fixture[];
  columns: GridColumn[];
  selected: ReadonlySet<number>;
  /** Numbers of fixtures that something is odd about. */
  odd: ReadonlySet<number>;
  onSelect: (numbers: number[]) => void;
  onSort: (column: string) => void;
  onTyped: (fixture: Fixture, column: string, text: string) => void;
  onPaste: (text: string, from: Fixture | undefined, column: string) => void;
  onCopy: () => string;
  onDelete: () => void;
}

/** The patch as a spreadsheet: arrows move, typing edits, rows are chosen as heads are. Only what is seen is drawn. */
export function FixtureTable(props: Props) {
  const { rig, rows, columns, selected, odd, onSelect, onSort, onTyped, onPaste, onCopy, onDelete } = props;
  const frame = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState<Cell>({ row: 0, column: 0 });
  const [editing, setEditing] = useState<string | null>(null);
  const numbers = useMemo(() => rows.map((row) => row.number), [rows]);
  const width = columns.reduce((sum, column) => sum + column.width, 0);
  // the library keeps its own state, which the compiler of React cannot follow: its answer is read anew here each time
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
    scrollPaddingStart: 34,
  });
  const at = { row: Math.min(active.row, Math.max(rows.length - 1, 0)), column: active.column };
  const first = selected.size ? numbers.findIndex((number) => selected.has(number)) : -1;
  const seen = useRef(-1);
  useEffect(() => {
    // what was chosen elsewhere comes into sight; what was chosen here is there already
    if (first >= 0 && first !== seen.current && !frame.current?.contains(document.activeElement))
      virtual.scrollToIndex(first, { align: "start" });
    seen.current = first;
  }, [first, virtual]);
  const keys = useGridKeys({
    at,
    rows: numbers,
    columns,
    selected,
    begin: (text) => {
      const [fixture, column] = [rows[at.row], columns[at.column]];
      if (fixture && column?.typed) setEditing(text ?? textToEdit(column, fixture, rig));
    },
    move: (cell) => {
      setActive(cell);
      virtual.scrollToIndex(cell.row);
    },
    onSelect,
    onDelete,
  });
  function stop(next?: Partial<Cell>) {
    setEditing(null);
    if (next) keys.go(next);
    frame.current?.focus();
  }
  const edit = (fixture: Fixture, begin: string) => {
    const column = columns[at.column]!;
    return (
      <CellInput
        label={`${column.title} of ${fixture.number}`}
        begin={begin}
        many={selected.has(fixture.number) ? selected.size : 1}
        suggestions={column.id === "mode" ? "kinds" : undefined}
        onDone={(text, next) => {
          if (text !== null && text !== textToEdit(column, fixture, rig)) onTyped(fixture, column.id, text);
          stop(next);
        }}
      />
    );
  };
  /** The cell that a pointer is on. */
  function cellAt(event: React.PointerEvent | React.MouseEvent): Cell | null {
    const { row, column } = (event.target as HTMLElement).closest<HTMLElement>("[data-row]")?.dataset ?? {};
    return row === undefined ? null : { row: Number(row), column: Number(column) };
  }
  return (
    <Frame
      ref={frame}
      role="grid"
      aria-label="Fixtures"
      aria-multiselectable
      aria-rowcount={rows.length + 1}
      aria-colcount={columns.length}
      aria-activedescendant={rows.length ? `cell-${at.row}-${at.column}` : undefined}
      tabIndex={0}
      onKeyDown={(event) => editing === null && keys.onKeyDown(event)}
      onCopy={(event) => {
        if (editing !== null) return;
        event.clipboardData.setData("text/plain", onCopy());
        event.preventDefault();
      }}
      onPaste={(event) => {
        if (editing !== null) return;
        event.preventDefault();
        onPaste(event.clipboardData.getData("text/plain"), rows[at.row], columns[at.column]?.id ?? "number");
      }}
    >
      <Head role="row" aria-rowindex={1} style={{ width }}>
        {columns.map((column, index) => (
          <div key={column.id} role="columnheader" aria-colindex={index + 1} style={{ width: column.width }}>
            <button
              tabIndex={-1}
              data-number={column.number || undefined}
              title={`Sort by ${column.title.replace(", m", "")}`}
              onClick={() => onSort(column.id)}
            >
              {column.title}
            </button>
          </div>
        ))}
      </Head>
      <div
        style={{ height: virtual.getTotalSize(), position: "relative", width }}
        role="rowgroup"
        onPointerDown={(event) => {
          const cell = cellAt(event);
          if (cell) keys.press(cell, event);
        }}
        onDoubleClick={(event) => {
          const cell = cellAt(event);
          const [column, fixture] = [cell && columns[cell.column], cell && rows[cell.row]];
          if (column?.typed && fixture) setEditing(textToEdit(column, fixture, rig));
        }}
      >
        {virtual.getVirtualItems().map((item) => {
          const fixture = rows[item.index]!;
          const active = item.index === at.row;
          return (
            <FixtureRow
              key={fixture.number}
              fixture={fixture}
              rig={rig}
              columns={columns}
              index={item.index}
              top={item.start}
              width={width}
              selected={selected.has(fixture.number)}
              odd={odd.has(fixture.number)}
              activeColumn={active ? at.column : -1}
              edit={active && editing !== null ? edit(fixture, editing) : null}
            />
          );
        })}
      </div>
    </Frame>
  );
}
