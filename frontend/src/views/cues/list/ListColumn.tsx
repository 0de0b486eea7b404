import { useState } from "react";
import styled from "styled-components";

import { useCueEdits, useLists, type Told } from "../../../api/cues";
import type { Schemas } from "../../../api/client";
import { useLivePart } from "../../../live/socket";
import { bakes } from "../../../api/bakes";
import { desk } from "../../../state";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button } from "../../../ui/Button";
import { ListSheet } from "./ListSheet";

const Column = styled.nav`
  display: flex;
  flex-direction: column;
  overflow: auto;
  padding-bottom: 8px;
  h2 {
    padding: 12px 12px 6px;
    font-weight: 500;
    color: var(--quiet);
  }
`;
const Item = styled.div`
  display: flex;
  align-items: center;
  border-left: 3px solid transparent;
  &[data-chosen] {
    border-color: var(--bone);
    background: var(--raised);
  }
  .open {
    flex: 1;
    min-width: 0;
    min-height: 52px;
    padding: 0 0 0 9px;
    border: 0;
    display: grid;
    justify-content: start;
    justify-items: start;
    align-content: center;
    gap: 0;
    text-align: left;
    line-height: 1.25;
  }
  .open > * {
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  b {
    font-weight: 600;
  }
  &[data-on] b::after {
    content: "";
    display: inline-block;
    width: 20px;
    height: 8px;
    margin-left: 8px;
    background: var(--hatch);
  }
  small {
    color: var(--quiet);
    font-size: 13px;
  }
  .open[data-pressed] small {
    color: inherit;
  }
`;
const Foot = styled.div`
  padding: 10px 12px;
`;

function words(list: Schemas["ListSummary"], told: Told | undefined): string {
  const level = told && told.level < 1 ? ` · ${Math.round(told.level * 100)} %` : "";
  const kept = list.settings.protected ? "protected · " : "";
  return `${kept}${list.cues} ${list.cues === 1 ? "cue" : "cues"}${told?.paused_at != null ? " · paused" : ""}${level}`;
}

/** All cue lists: which is on, and which is looked at. */
export function ListColumn({ chosen }: { chosen: number | null }) {
  const { data: lists } = useLists();
  const told = useLivePart((state) => state?.lists ?? []);
  const edits = useCueEdits();
  const [open, setOpen] = useState<number | null>(null);
  const opened = lists?.find((one) => one.id === open);
  async function add() {
    const names = new Set(lists?.map((one) => one.name));
    let n = 1;
    while (names.has(`Song ${n}`)) n += 1;
    const made = await edits.addList(`Song ${n}`);
    if (made) desk.openList(made.id);
  }
  function move(id: number, by: number) {
    const ids = lists!.map((one) => one.id);
    const at = ids.indexOf(id);
    ids.splice(at, 1);
    ids.splice(Math.max(0, at + by), 0, id);
    void edits.orderLists(ids);
  }
  return (
    <Column aria-label="Cue lists">
      <h2>Cue lists</h2>
      {lists?.map((list, n) => {
        const own = told.find((one) => one.id === list.id);
        return (
          <Item
            key={list.id}
            data-chosen={list.id === chosen || undefined}
            data-on={own?.cue != null || undefined}
          >
            <Button
              data-variant="plain"
              className="open"
              aria-current={list.id === chosen || undefined}
              onPress={() => desk.openList(list.id)}
            >
              <b>{list.name}</b>
              <small>
                {own?.cue != null ? "on stage · " : ""}
                {words(list, own)}
              </small>
            </Button>
            {list.id === chosen && (
              <ActionMenu
                label={list.name}
                onAction={(id) => {
                  if (id === "settings") setOpen(list.id);
                  if (id === "up") move(list.id, -1);
                  if (id === "down") move(list.id, 1);
                  if (id === "print") window.open(`/api/cue-lists/${list.id}/sheet`, "_blank");
                  if (id === "csv") window.location.assign(`/api/cue-lists/${list.id}/sheet.csv`);
                  if (id === "renew") void bakes.renew(list.id);
                  if (id === "back") void bakes.back(list.id);
                  if (id === "delete") void edits.removeList(list.id);
                }}
                actions={[
                  { id: "settings", text: "Name and how it is played …" },
                  { id: "up", text: "Move up", disabled: n === 0 },
                  { id: "down", text: "Move down", disabled: n === lists.length - 1 },
                  { id: "print", text: "Cue sheet to print" },
                  { id: "csv", text: "Cue sheet as CSV" },
                  list.settings.baked && { id: "renew", text: "Bake its steps anew from the effect" },
                  list.settings.baked && { id: "back", text: "Back to the effect: one cue starts it" },
                  { id: "delete", text: "Delete with its cues" },
                ]}
              />
            )}
          </Item>
        );
      })}
      <Foot>
        <Button data-variant="small" onPress={() => void add()}>
          New list
        </Button>
      </Foot>
      {opened && <ListSheet list={opened} onClose={() => setOpen(null)} />}
    </Column>
  );
}
