import { useState } from "react";
import { GridList, GridListItem, useDragAndDrop } from "react-aria-components";
import styled from "styled-components";

import { useBuskEdits, useProposal, type Section } from "../../../api/busk";
import type { Schemas } from "../../../api/client";
import { useDesk } from "../../../state";
import { Button, Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { DragHandle } from "../../../ui/DragHandle";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";
import { movedTo } from "./order";

const Lists = styled(GridList)`
  width: 100%;
  max-height: 44vh;
  overflow: auto;
  border: 1px solid var(--line);
  outline: none;
`;
const Item = styled(GridListItem)`
  display: grid;
  grid-template-columns: 28px 190px 1fr;
  align-items: center;
  min-height: 42px;
  padding: 0 8px;
  border-bottom: 1px solid var(--line);
  outline: none;
  &[data-focus-visible] {
    box-shadow: inset 0 0 0 2px var(--focus);
  }
  small {
    color: var(--quiet);
    display: block;
    font-size: 12px;
  }
  .carries {
    display: flex;
    gap: 4px;
    justify-content: flex-end;
  }
`;
const Fields = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
  align-items: end;
`;
type Proposed = Schemas["ProposedView"];
interface Wish extends Proposed {
  shown: Section[];
}
const NAMES: Partial<Record<Section, string>> = {
  colour: "colours",
  position: "positions",
  beam: "beam",
  effects: "effects",
};

/** A busking page in one step: which groups, in which order, and what each row carries. */
export function MakePageSheet({ onClose }: { onClose: () => void }) {
  const { data } = useProposal();
  return data ? <MakePage groups={data} onClose={onClose} /> : null;
}

function MakePage({ groups, onClose }: { groups: Proposed[]; onClose: () => void }) {
  const edits = useBuskEdits();
  const [name, setName] = useState("Busking");
  const [colours, setColours] = useState<"all" | "each">("all");
  const [wishes, setWishes] = useState<Wish[]>(groups.map((one) => ({ ...one, shown: one.carries })));
  const [busy, setBusy] = useState(false);
  const change = (id: number, part: Partial<Wish>) =>
    setWishes((before) => before.map((one) => (one.id === id ? { ...one, ...part } : one)));
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ "text/plain": String(key) })),
    onReorder: ({ keys, target }) =>
      setWishes((before) => movedTo(before, [...keys].map(Number), Number(target.key), target.dropPosition)),
  });
  const on = wishes.filter((one) => one.on);
  async function make() {
    setBusy(true);
    const made = await edits.make({
      name: name.trim(),
      colours,
      rows: on.map(({ id, shown }) => ({ group_id: id, carries: shown })),
    });
    setBusy(false);
    if (!made) return;
    useDesk.setState({ busk: null });
    onClose();
  }
  return (
    <Sheet title="Make a busking page" isOpen onClose={onClose}>
      <Fields>
        <TextField label="Name" value={name} onChange={setName} />
        <Choice
          label="Colours"
          value={colours}
          options={[
            { id: "all", text: "one set that all rows take from" },
            { id: "each", text: "a set for each group" },
          ]}
          onChange={(key) => setColours(key as "all" | "each")}
        />
      </Fields>
      <span>
        {on.length} {on.length === 1 ? "row" : "rows"}, from the back of the stage to the front, and a row for
        all of them on top. Drag to put them in another order.
      </span>
      <Lists aria-label="Groups" items={wishes} dragAndDropHooks={dragAndDropHooks} selectionMode="none">
        {(item) => {
          const one = item as Wish;
          return (
            <Item id={one.id} textValue={one.name}>
              <DragHandle label={`Move ${one.name}`} />
              <Tick isSelected={one.on} onChange={(now) => change(one.id, { on: now })}>
                <span>
                  {one.name} <small>{one.kind === "haze" ? "output and fan" : one.lights}</small>
                </span>
              </Tick>
              <span className="carries">
                {one.on &&
                  one.carries.map((section) => (
                    <Toggle
                      key={section}
                      data-variant="small"
                      aria-label={`${one.name}: ${NAMES[section]}`}
                      isSelected={one.shown.includes(section)}
                      onChange={(now) =>
                        change(one.id, {
                          shown: one.carries.filter((other) =>
                            other === section ? now : one.shown.includes(other),
                          ),
                        })
                      }
                    >
                      {NAMES[section]}
                    </Toggle>
                  ))}
              </span>
            </Item>
          );
        }}
      </Lists>
      <Ending>
        <Button data-variant="plain" onPress={onClose}>
          Leave it
        </Button>
        <Button isDisabled={!on.length || !name.trim() || busy} onPress={() => void make()}>
          {busy ? "Making …" : "Make the page"}
        </Button>
      </Ending>
    </Sheet>
  );
}
