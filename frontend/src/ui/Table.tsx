import { Cell, Column, Row, Table as AriaTable, TableBody, TableHeader } from "react-aria-components";
import styled from "styled-components";

const Frame = styled(AriaTable)`
  border-collapse: collapse;
  width: 100%;
  font-size: 14px;
  outline-offset: -2px;
  th {
    text-align: left;
    font-weight: 500;
    color: var(--quiet);
    position: sticky;
    top: 0;
    background: var(--ink);
    z-index: 1;
  }
  th,
  td {
    padding: 0 12px 0 0;
    height: 32px;
    border-bottom: 1px solid var(--line);
    white-space: nowrap;
  }
  td[data-number],
  th[data-number] {
    font-family: var(--numbers);
    text-align: right;
  }
  tr {
    cursor: default;
    outline-offset: -2px;
  }
  tr[data-selected] {
    background: var(--bone);
    color: var(--on-bone);
  }
  tr[data-selected] td:first-child {
    padding-left: 6px;
  }
`;

export interface TableColumn<T> {
  id: string;
  title: string;
  number?: boolean;
  text: (row: T) => string;
}
interface Props<T> {
  label: string;
  columns: TableColumn<T>[];
  rows: T[];
  rowKey: (row: T) => string;
  selected?: Set<string>;
  onSelect?: (keys: Set<string>) => void;
  empty?: string;
}

/** Rows of facts. */
export function Table<T>({ label, columns, rows, rowKey, selected, onSelect, empty }: Props<T>) {
  return (
    <Frame
      aria-label={label}
      selectionMode={onSelect ? "multiple" : "none"}
      selectionBehavior="replace"
      selectedKeys={selected ?? new Set<string>()}
      onSelectionChange={(keys) =>
        onSelect?.(keys === "all" ? new Set(rows.map(rowKey)) : (keys as Set<string>))
      }
    >
      <TableHeader>
        {columns.map((column, index) => (
          <Column
            key={column.id}
            id={column.id}
            isRowHeader={index === 0}
            data-number={column.number || undefined}
          >
            {column.title}
          </Column>
        ))}
      </TableHeader>
      <TableBody renderEmptyState={() => empty ?? "Nothing here."}>
        {rows.map((row) => (
          <Row key={rowKey(row)} id={rowKey(row)}>
            {columns.map((column) => (
              <Cell key={column.id} data-number={column.number || undefined}>
                {column.text(row)}
              </Cell>
            ))}
          </Row>
        ))}
      </TableBody>
    </Frame>
  );
}
