import { useState } from "react";
import { GridList, GridListItem, useDragAndDrop } from "react-aria-components";
import styled from "styled-components";

import { useBuskEdits, type BuskPage } from "../../../api/busk";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button } from "../../../ui/Button";
import { DragHandle } from "../../../ui/DragHandle";
import { AddRowMenu } from "./AddRowMenu";
import { movedTo } from "./order";
import { RowEditor } from "./RowEditor";

const Frame = styled.section`
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
`;
const Head = styled.header`
  grid-column: 1 / 3;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 16px;
  background: repeating-linear-gradient(135deg, var(--line) 0 2px, transparent 2px 5px);
  border-bottom: 1px solid var(--line);
  > * {
    background: var(--ink);
  }
  h2,
  span {
    padding: 2px 8px;
  }
  > :last-child {
    margin-left: auto;
    background: var(--bone);
    color: var(--on-bone);
  }
`;
const List = styled.div`
  border-right: 1px solid var(--line);
  padding: 8px;
  overflow: auto;
`;
const Rows = styled(GridList)`
  outline: none;
`;
const Item = styled(GridListItem)`
  display: flex;
  align-items: center;
  gap: 4px;
  min-height: 42px;
  padding: 0 0 0 4px;
  cursor: pointer;
  outline: none;
  border-left: 3px solid transparent;
  &[data-selected] {
    border-color: var(--bone);
    background: var(--raised);
  }
  &[data-focus-visible] {
    box-shadow: inset 0 0 0 2px var(--focus);
  }
  b {
    flex: 1;
    font-weight: 400;
  }
  &[data-selected] b {
    font-weight: 650;
  }
`;

/** Rows and pads of a page, edited: what runs goes on, and no pad acts here. */
export function EditMode({ page, onDone }: { page: BuskPage; onDone: () => void }) {
  const edits = useBuskEdits();
  const [chosen, setChosen] = useState(page.rows[1]?.id ?? page.rows[0]!.id);
  const row = page.rows.find((one) => one.id === chosen) ?? page.rows[0]!;
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ "text/plain": String(key) })),
    onReorder: ({ keys, target }) =>
      void edits.order(
        page.id,
        movedTo(page.rows, [...keys].map(Number), Number(target.key), target.dropPosition).map(
          (one) => one.id,
        ),
      ),
  });
  return (
    <Frame aria-label={`Editing ${page.name}`}>
      <Head>
        <h2>Editing {page.name}</h2>
        <span>Pads do not act here. What runs goes on.</span>
        <Button onPress={onDone}>Done</Button>
      </Head>
      <List>
        <Rows
          aria-label="Rows"
          items={page.rows}
          selectionMode="single"
          selectionBehavior="replace"
          disallowEmptySelection
          selectedKeys={[row.id]}
          onSelectionChange={(keys) => keys !== "all" && setChosen(Number([...keys][0]))}
          dragAndDropHooks={dragAndDropHooks}
        >
          {(item) => {
            const one = item as BuskPage["rows"][number];
            return (
              <Item id={one.id} textValue={one.name}>
                <DragHandle label={`Move ${one.name}`} />
                <b>{one.name}</b>
                {one.kind !== "all" && (
                  <ActionMenu
                    label={one.name}
                    onAction={() => void edits.removeRow(one.id)}
                    actions={[{ id: "remove", text: `Delete the row ${one.name}` }]}
                  />
                )}
              </Item>
            );
          }}
        </Rows>
        <AddRowMenu page={page} />
      </List>
      <RowEditor key={row.id} row={row} />
    </Frame>
  );
}
