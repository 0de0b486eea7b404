import { useState } from "react";
import { GridList, GridListItem, useDragAndDrop } from "react-aria-components";
import styled from "styled-components";

import { useBuskEdits, type BuskPad, type BuskRow, type Section } from "../../../api/busk";
import type { Schemas } from "../../../api/client";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button } from "../../../ui/Button";
import { DragHandle } from "../../../ui/DragHandle";
import { AddPadsSheet } from "./AddPadsSheet";
import { MessagePadSheet } from "./MessagePadSheet";
import { NameSheet } from "./NameSheet";
import { movedTo } from "./order";

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  h2 {
    min-width: 90px;
  }
`;
const Pads = styled(GridList)`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  outline: none;
  min-height: 44px;
`;
const Item = styled(GridListItem)`
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 44px;
  padding-left: 8px;
  border: 1px solid var(--line);
  cursor: grab;
  outline: none;
  &[data-focus-visible] {
    box-shadow: inset 0 0 0 2px var(--focus);
  }
  &[data-gone] {
    border-style: dashed;
    color: var(--quiet);
  }
  i {
    width: 22px;
    height: 22px;
  }
  small {
    color: var(--quiet);
    font-size: 12px;
  }
`;

/** A pad as it is kept. */
export const content = (pad: BuskPad): Schemas["PadContent"] => ({
  id: pad.id,
  name: pad.own_name,
  palette: pad.palette,
  effect: pad.effect,
  pixels: pad.pixels,
  while_held: pad.while_held,
  message: pad.sends,
});

interface Props {
  row: BuskRow;
  section: Section;
  title: string;
}

/** The pads of a section: dragged into another order, added, named, taken out. */
export function PadList({ row, section, title }: Props) {
  const edits = useBuskEdits();
  const [sheet, setSheet] = useState<"add" | "name" | "message" | null>(null);
  const [chosen, setChosen] = useState<BuskPad | null>(null);
  const pads = row[section];
  const put = (now: Schemas["PadContent"][]) => edits.pads(row.id, section, now);
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ "text/plain": String(key) })),
    onReorder: ({ keys, target }) =>
      void put(movedTo(pads, [...keys].map(Number), Number(target.key), target.dropPosition).map(content)),
  });
  function change(pad: BuskPad, id: string) {
    if (id === "remove") void put(pads.filter((one) => one.id !== pad.id).map(content));
    else if (id === "held")
      void put(
        pads.map((one) => ({
          ...content(one),
          while_held: one.id === pad.id ? !one.while_held : one.while_held,
        })),
      );
    else {
      setChosen(pad);
      setSheet(id as "name" | "message");
    }
  }
  return (
    <section aria-label={title}>
      <Head>
        <h2>{title}</h2>
        <Button
          data-variant="small"
          onPress={() => {
            setChosen(null);
            setSheet(section === "messages" ? "message" : "add");
          }}
        >
          Add pads
        </Button>
      </Head>
      <Pads
        aria-label={title}
        items={pads}
        layout="grid"
        dragAndDropHooks={dragAndDropHooks}
        renderEmptyState={() => "No pads yet."}
      >
        {(item) => {
          const pad = item as BuskPad;
          return (
            <Item id={pad.id} textValue={pad.name} data-gone={pad.gone ? true : undefined}>
              <DragHandle label={`Move ${pad.name}`} />
              {pad.colours[0] && <i style={{ background: pad.colours[0] }} />}
              <span>
                {pad.name} {pad.gone && <small>{pad.gone}</small>}
                {pad.while_held && <small>while held</small>}
                {pad.message && <small>{pad.message}</small>}
              </span>
              <ActionMenu
                label={pad.name}
                onAction={(id) => change(pad, id)}
                actions={[
                  { id: "name", text: "Name" },
                  section === "effects" && {
                    id: "held",
                    text: pad.while_held ? "On and off by presses" : "On while it is held",
                  },
                  section === "messages" && { id: "message", text: "Change the message" },
                  { id: "remove", text: "Take out" },
                ]}
              />
            </Item>
          );
        }}
      </Pads>
      {sheet === "add" && (
        <AddPadsSheet
          row={row}
          section={section}
          onClose={() => setSheet(null)}
          onAdd={(more) => put([...pads.map(content), ...more])}
        />
      )}
      {sheet === "name" && chosen && (
        <NameSheet
          title="Name the pad"
          name={chosen.name}
          onClose={() => setSheet(null)}
          onKeep={(name) =>
            put(pads.map((one) => ({ ...content(one), name: one.id === chosen.id ? name : one.own_name })))
          }
        />
      )}
      {sheet === "message" && (
        <MessagePadSheet
          pad={chosen}
          onClose={() => setSheet(null)}
          onKeep={(now) =>
            put(
              chosen
                ? pads.map((one) => (one.id === chosen.id ? { ...now, id: one.id } : content(one)))
                : [...pads.map(content), now],
            )
          }
        />
      )}
    </section>
  );
}
