import { useState } from "react";
import styled from "styled-components";

import { actionListEdits, useActionLists } from "../../../api/actionLists";
import { recording } from "../../../live/recording";
import { Button } from "../../../ui/Button";
import { Sheet } from "../../../ui/Sheet";
import { NameSheet } from "../edit/NameSheet";
import { ActionListEditor } from "./ActionListEditor";

const Frame = styled.div`
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr);
  gap: 20px;
  width: min(860px, 86vw);
  min-height: 380px;
`;
const Names = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  border-right: 1px solid var(--line);
  padding-right: 16px;
  button {
    justify-content: flex-start;
    white-space: normal;
    text-align: left;
    flex: none;
  }
  hr {
    width: 100%;
    border: 0;
    border-top: 1px solid var(--line);
  }
`;

/** Action lists: several things at one press. Made line by line, or of what the hands do. */
export function ActionsSheet({ first, onClose }: { first?: number; onClose: () => void }) {
  const { data: lists } = useActionLists();
  const [chosen, setChosen] = useState<number | null>(first ?? null);
  const [naming, setNaming] = useState(false);
  if (!lists) return null;
  const list = lists.find((one) => one.id === chosen) ?? lists[0];
  return (
    <Sheet title="Action lists" isOpen onClose={onClose}>
      <Frame>
        <Names role="group" aria-label="All action lists">
          {lists.map((one) => (
            <Button
              key={one.id}
              data-variant="plain"
              aria-pressed={one.id === list?.id}
              data-selected={one.id === list?.id || undefined}
              onPress={() => setChosen(one.id)}
            >
              {one.name}
            </Button>
          ))}
          <hr />
          <Button onPress={() => setNaming(true)}>Make one line by line</Button>
          <Button
            onPress={() => {
              recording.begin();
              onClose();
            }}
          >
            Record my hands
          </Button>
        </Names>
        {list ? (
          <ActionListEditor key={list.id} list={list} />
        ) : (
          <p>
            An action list does several things at one press: pads, levels, tempos, go, specials, pages,
            messages, with waits between. Make one line by line, or record what your hands do on the live
            page.
          </p>
        )}
      </Frame>
      {naming && (
        <NameSheet
          title="A new action list"
          name=""
          onClose={() => setNaming(false)}
          onKeep={async (name) => {
            const made = await actionListEdits.make({ name, document: { until: "end", key: "", steps: [] } });
            if (made) setChosen(made.id);
            return made;
          }}
        />
      )}
    </Sheet>
  );
}
