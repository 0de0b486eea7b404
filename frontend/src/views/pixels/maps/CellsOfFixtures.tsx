import styled from "styled-components";

import { useCells, usePixelTables, type PixelMap } from "../../../api/pixels";
import { useRig } from "../../../api/queries";
import { rigEdits } from "../../../api/rigEdits";
import { Choice } from "../../../ui/Choice";

const Rows = styled.div`
  display: grid;
  gap: 4px;
  h3 {
    font-size: 15px;
  }
  > div {
    display: grid;
    grid-template-columns: 76px minmax(0, 1fr);
    align-items: center;
    gap: 8px;
  }
  span {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;
/** A key of a choice is never empty. */
const AS_MADE = "as made";
type Changes = Parameters<typeof rigEdits.change>[0];

/** How the cells of each fixture on a map are numbered: one that hangs the other way round is turned here. */
export function CellsOfFixtures({ map }: { map: PixelMap }) {
  const { data: cells } = useCells(map.id, map.edition);
  const { data: rig } = useRig();
  const { data: tables } = usePixelTables();
  const numbers = new Set(
    cells?.keys.filter((key) => key.includes(".")).map((key) => Number(key.split(".")[0])),
  );
  const own = rig?.fixtures.filter((one) => numbers.has(one.number)) ?? [];
  if (!own.length || !tables) return null;
  const options = tables.cell_orders.map(({ name, label }) => ({ id: name || AS_MADE, text: label }));
  const orders = new Set(own.map((one) => one.cell_order));
  const put = (fixtures: number[], name: string) =>
    void rigEdits.change(
      fixtures.map((fixture) => ({ fixture, set: { cell_order: name === AS_MADE ? "" : name } })) as Changes,
      "Order of cells",
    );
  return (
    <Rows role="group" aria-label="How fixtures number their cells">
      <h3>Cells of each fixture</h3>
      {own.length > 1 && (
        <div>
          <span>All {own.length}</span>
          <Choice
            label="Cells of all fixtures"
            hideLabel
            options={options}
            placeholder="not all alike"
            value={orders.size === 1 ? own[0]!.cell_order || AS_MADE : null}
            onChange={(id) =>
              put(
                own.map((one) => one.number),
                String(id),
              )
            }
          />
        </div>
      )}
      {own.map(({ number, name, cell_order }) => (
        <div key={number}>
          <span title={name}>{number}</span>
          <Choice
            label={`Cells of ${number}`}
            hideLabel
            options={options}
            value={cell_order || AS_MADE}
            onChange={(id) => put([number], String(id))}
          />
        </div>
      ))}
    </Rows>
  );
}
