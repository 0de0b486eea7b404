import { GridList, GridListItem, useDragAndDrop } from "react-aria-components";
import styled from "styled-components";

import type { Rig } from "../../../api/rig";
import { useLivePart } from "../../../live/socket";
import { desk, useDesk } from "../../../state";
import { DragHandle } from "../../../ui/DragHandle";
import { show } from "../tools/showing";

const Items = styled(GridList)`
  overflow: auto;
  height: 100%;
  outline-offset: -2px;
`;
const Item = styled(GridListItem)`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 34px;
  padding: 0 4px;
  border-bottom: 1px solid var(--line);
  outline-offset: -2px;
  .place,
  .key {
    font-family: var(--numbers);
    min-width: 4ch;
    text-align: right;
  }
  .key {
    min-width: 8ch;
  }
  &[data-lit] {
    background: var(--bone);
    color: var(--on-bone);
  }
`;
const MOST = 400;

/** A list with some of it taken out and put before or after another of it. */
export function moved(
  order: readonly string[],
  those: ReadonlySet<unknown>,
  to: unknown,
  after: boolean,
): string[] {
  const left = order.filter((key) => !those.has(key));
  const at = left.indexOf(String(to)) + (after ? 1 : 0);
  return [...left.slice(0, at), ...order.filter((key) => those.has(key)), ...left.slice(at)];
}

/** The selection in its order: the head that is lit is marked; drag one to where it belongs. */
export function OrderPanel({ rig }: { rig: Rig }) {
  const selection = useDesk((state) => state.selection);
  const shown = useLivePart((state) => state?.shown ?? null);
  const names = new Map(rig.fixtures.map((fixture) => [fixture.number, fixture.name]));
  const lit = new Set(shown && shown.count > 1 ? shown.heads : []);
  function reorder(order: string[]) {
    desk.select(order, "as picked");
    if (shown && shown.count > 1)
      show(
        order.map((key) => [key]),
        shown.at,
      );
  }
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ "text/plain": String(key) })),
    onReorder: ({ keys, target }) =>
      reorder(moved(selection, keys, target.key, target.dropPosition === "after")),
  });
  if (!selection.length)
    return (
      <p style={{ padding: 8 }}>
        Select lights or a group: their order is shown here, to step through and to correct.
      </p>
    );
  return (
    <Items
      aria-label="Order of the selection"
      selectionMode="multiple"
      selectionBehavior="replace"
      dragAndDropHooks={dragAndDropHooks}
    >
      {selection.slice(0, MOST).map((key, place) => (
        <Item key={key} id={key} textValue={key} data-lit={lit.has(key) || undefined}>
          <DragHandle label={`Move ${key}`} />
          <span className="place">{place + 1}</span>
          <span className="key">{key}</span>
          <span>{names.get(parseInt(key, 10))}</span>
        </Item>
      ))}
    </Items>
  );
}
