import { memo } from "react";
import styled from "styled-components";

import type { Fixture, Rig } from "../../../api/rig";
import type { GridColumn } from "./columns";

export const ROW_PX = 30;
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
  fixture: Fixture;
  rig: Rig;
  columns: GridColumn[];
  index: number;
  top: number;
  width: number;
  selected: boolean;
  odd: boolean;
  /** The column of the cell with the focus; −1: it is in another row. */
  activeColumn: number;
  /** What stands in that cell while it is typed into. */
  edit: React.ReactNode;
}

/** A row of the fixture table; drawn anew only when something of it changes. */
export const FixtureRow = memo(function FixtureRow(props: Props) {
  const { fixture, rig, columns, index, top, width, selected, odd, activeColumn, edit } = props;
  return (
    <Row
      role="row"
      aria-rowindex={index + 2}
      aria-selected={selected}
      data-odd={odd || undefined}
      style={{ transform: `translateY(${top}px)`, width }}
    >
      {columns.map((column, n) => (
        <Field
          key={column.id}
          id={`cell-${index}-${n}`}
          role="gridcell"
          aria-colindex={n + 1}
          aria-readonly={!column.typed}
          data-row={index}
          data-column={n}
          data-number={column.number || undefined}
          data-active={n === activeColumn || undefined}
          style={{ width: column.width }}
        >
          {n === activeColumn && edit ? edit : column.text(fixture, rig)}
        </Field>
      ))}
    </Row>
  );
});
