import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";

import type { Fixture, Rig } from "../../../api/rig";
import { CellInput } from "./CellInput";
import { textToEdit, type GridColumn } from "./columns";
import { useGridKeys, type Cell } from "./useGridKeys";

const ROW_PX = 30;
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
const Row = styled.div`
  position: absolute;
  left: 0;
  display: flex;
  height: ${ROW_PX}px;
  border-bottom: 1px solid var(--line);
  &[aria-selected="true"] {
    background: var(--bone);
    color: var(--on-bone);
  }
  &[data-odd] > :first-child {
    box-shadow: inset 4px 0 0 var(--quiet);
  }
`;
const Field = styled.div`
  flex: none;
  position: relative;
  padding: 0 6px;
  line-height: ${ROW_PX}px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  box-sizing: border-box;
  &[data-number] {
    font-family: var(--numbers);
    text-align: right;
  }
  &[data-active] {
    box-shadow: inset 0 0 0 2px var(--quiet);
    overflow: visible;
  }
  [role="grid"]:focus-within &[data-active] {
    box-shadow: inset 0 0 0 2px var(--focus);
  }
  [aria-selected="true"] &[data-active] {
    box-shadow: inset 0 0 0 2px var(--on-bone);
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
      <div style={{ height: virtual.getTotalSize(), position: "relative", width }} role="rowgroup">
        {virtual.getVirtualItems().map((item) => {
          const fixture = rows[item.index]!;
          return (
            <Row
              key={fixture.number}
              role="row"
              aria-rowindex={item.index + 2}
              aria-selected={selected.has(fixture.number)}
              data-odd={odd.has(fixture.number) || undefined}
              style={{ transform: `translateY(${item.start}px)`, width }}
            >
              {columns.map((column, index) => {
                const here = item.index === at.row && index === at.column;
                return (
                  <Field
                    key={column.id}
                    id={`cell-${item.index}-${index}`}
                    role="gridcell"
                    aria-colindex={index + 1}
                    aria-readonly={!column.typed}
                    data-number={column.number || undefined}
                    data-active={here || undefined}
                    style={{ width: column.width }}
                    onPointerDown={(event) => keys.press({ row: item.index, column: index }, event)}
                    onDoubleClick={() => column.typed && setEditing(textToEdit(column, fixture, rig))}
                  >
                    {here && editing !== null ? (
                      <CellInput
                        label={`${column.title} of ${fixture.number}`}
                        begin={editing}
                        many={selected.has(fixture.number) ? selected.size : 1}
                        suggestions={
                          column.id === "mode"
                            ? "kinds"
                            : column.id === "cell_order"
                              ? "cell-orders"
                              : undefined
                        }
                        onDone={(text, next) => {
                          if (text !== null && text !== textToEdit(column, fixture, rig))
                            onTyped(fixture, column.id, text);
                          stop(next);
                        }}
                      />
                    ) : (
                      column.text(fixture, rig)
                    )}
                  </Field>
                );
              })}
            </Row>
          );
        })}
      </div>
    </Frame>
  );
}
