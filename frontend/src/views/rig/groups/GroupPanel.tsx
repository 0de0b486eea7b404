import { useState } from "react";
import { GridList, GridListItem, useDragAndDrop } from "react-aria-components";
import { RefreshCw, Trash2 } from "lucide-react";
import styled from "styled-components";

import { api, take, type Schemas } from "../../../api/client";
import { useEdit, useShow } from "../../../api/queries";
import { desk, useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { DragHandle } from "../../../ui/DragHandle";
import { TextField } from "../../../ui/TextField";
import { show } from "../tools/showing";
import { RuleChoice } from "./RuleChoice";

const Frame = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 8px;
  height: 100%;
  min-height: 0;
  padding-bottom: 8px;
`;
const Row = styled.div`
  display: flex;
  gap: 8px;
  align-items: end;
  flex-wrap: wrap;
  input {
    width: 150px;
  }
`;
const Items = styled(GridList)`
  overflow: auto;
  outline-offset: -2px;
`;
const Item = styled(GridListItem)`
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 40px;
  padding: 0 4px;
  border-bottom: 1px solid var(--line);
  outline-offset: -2px;
  cursor: pointer;
  &[data-selected] {
    background: var(--bone);
    color: var(--on-bone);
  }
  .name {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    font-size: 13px;
    white-space: nowrap;
  }
  button {
    color: inherit;
  }
`;

/** Kept selections: make, rename, arrange by drag, delete, make others from one by rules. */
export function GroupPanel() {
  const { data: groups = [] } = useShow((show) => show.groups);
  const selection = useDesk((state) => state.selection);
  const [chosen, setChosen] = useState<number | null>(null);
  const [name, setName] = useState("");
  const group = groups.find((one) => one.id === chosen);
  const make = useEdit((body: Schemas["NewGroup"]) => take(api.POST("/api/groups", { body })));
  const kinds = useEdit(() => take(api.POST("/api/groups/for-kinds")));
  const change = useEdit(({ id, ...body }: Schemas["GroupChange"] & { id: number }) =>
    take(api.PATCH("/api/groups/{group_id}", { params: { path: { group_id: id } }, body })),
  );
  const remove = useEdit((id: number) =>
    take(api.DELETE("/api/groups/{group_id}", { params: { path: { group_id: id } } })),
  );
  const renew = useEdit((id: number) =>
    take(api.POST("/api/groups/{group_id}/renew", { params: { path: { group_id: id } } })),
  );
  const arrange = useEdit((order: number[]) => take(api.POST("/api/groups/order", { body: { order } })));
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ "text/plain": String(key) })),
    onReorder: ({ keys, target }) => {
      const order = groups.map((one) => one.id).filter((id) => !keys.has(id));
      const at = order.indexOf(Number(target.key)) + (target.dropPosition === "after" ? 1 : 0);
      order.splice(at, 0, ...[...keys].map(Number));
      arrange.mutate(order);
    },
  });
  return (
    <Frame aria-label="Groups">
      <Row
        as="form"
        onSubmit={(event: React.FormEvent) => {
          event.preventDefault();
          if (name.trim()) make.mutate({ name, heads: selection }, { onSuccess: () => setName("") });
        }}
      >
        <TextField label="Name of a new group" value={name} onChange={setName} />
        <Button type="submit" isDisabled={!name.trim()}>
          {selection.length ? `Keep ${selection.length} heads` : "Make it empty"}
        </Button>
        <Button onPress={() => kinds.mutate()}>One for each kind</Button>
        <Button
          isDisabled={!groups.some((one) => one.heads.length)}
          onPress={() => show(groups.map((one) => one.heads).filter((heads) => heads.length))}
        >
          Step through them
        </Button>
      </Row>
      <Items
        aria-label="Groups"
        selectionMode="single"
        selectionBehavior="replace"
        selectedKeys={chosen === null ? [] : [chosen]}
        dragAndDropHooks={dragAndDropHooks}
        onSelectionChange={(keys) => {
          const one = groups.find(({ id }) => keys !== "all" && keys.has(id));
          setChosen(one?.id ?? null);
          if (one) desk.select(one.heads);
        }}
        renderEmptyState={() => "No groups yet: select lights and keep them here, or make one for each kind."}
      >
        {groups.map((one) => (
          <Item key={one.id} id={one.id} textValue={one.name}>
            <DragHandle label={`Move ${one.name}`} />
            <span className="name">{one.name}</span>
            <small>
              {one.heads.length ? `${one.heads.length} heads` : "empty: waits for lights"}
              {one.outdated ? " · the rig has changed" : one.by_rule ? " · by rule" : ""}
            </small>
            {one.outdated && (
              <Button data-variant="small" onPress={() => renew.mutate(one.id)}>
                <RefreshCw size={14} aria-hidden="true" /> Renew
              </Button>
            )}
            <Button
              data-variant="plain"
              aria-label={`Delete ${one.name}`}
              onPress={() => remove.mutate(one.id)}
            >
              <Trash2 size={16} aria-hidden="true" />
            </Button>
          </Item>
        ))}
      </Items>
      {group && (
        <Row key={group.id}>
          <TextField
            label="Name"
            defaultValue={group.name}
            onBlur={(event) => {
              const text = (event.target as HTMLInputElement).value.trim();
              if (text && text !== group.name) change.mutate({ id: group.id, name: text });
            }}
          />
          <Button
            isDisabled={!selection.length}
            onPress={() => change.mutate({ id: group.id, heads: selection })}
          >
            Give it the selection
          </Button>
          <RuleChoice group={group} />
        </Row>
      )}
    </Frame>
  );
}
