import { useState } from "react";
import styled from "styled-components";

import { useCueEdits, type CueContent } from "../../../api/cues";
import { tell } from "../../../api/queries";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button } from "../../../ui/Button";
import { seconds } from "../cues";
import { moved, type Message } from "../messages";
import { MessageSheet } from "./MessageSheet";

const Section = styled.section`
  margin-top: 14px;
  > div {
    display: flex;
    align-items: center;
    justify-content: space-between;
    border-bottom: 1px solid var(--line);
  }
  h3 {
    font-size: 14px;
    font-weight: 600;
    color: var(--quiet);
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
`;
const Item = styled.li`
  display: grid;
  grid-template-columns: 66px minmax(0, 1fr) auto;
  align-items: center;
  min-height: 40px;
  padding-left: 4px;
  time {
    color: var(--quiet);
    font-size: 14px;
  }
  span {
    line-height: 1.25;
    overflow-wrap: anywhere;
  }
`;
const Endless = styled.p`
  border: 1px dashed var(--edge);
  padding: 8px 12px;
  margin-top: 8px;
  font-size: 14px;
`;

/** What a cue sends, in its order: to outside devices, and to other lists and controls. */
export function CueMessages({ cue }: { cue: CueContent }) {
  const edits = useCueEdits();
  const [edited, setEdited] = useState<number | null>(null);
  const now = cue.messages.map((one) => one.message);
  const put = (messages: Message[]) => void edits.messages(cue.id, messages).catch(tell);
  function does(at: number, id: string) {
    if (id === "edit") setEdited(at);
    if (id === "up") put(moved(now, at, -1));
    if (id === "down") put(moved(now, at, 1));
    if (id === "out") put(now.filter((_, n) => n !== at));
  }
  return (
    <Section aria-label="Messages">
      <div>
        <h3>{now.length ? "Sends" : "Sends nothing"}</h3>
        <Button data-variant="plain" onPress={() => setEdited(now.length)}>
          Add a message …
        </Button>
      </div>
      <ol>
        {cue.messages.map((one, at) => (
          <Item key={at}>
            <time>{one.sent ? `+${seconds(one.sent)} s` : "at once"}</time>
            <span>{one.words}</span>
            <ActionMenu
              label={one.words}
              onAction={(id) => does(at, id)}
              actions={[
                { id: "edit", text: "Change …" },
                { id: "up", text: "Earlier", disabled: at === 0 },
                { id: "down", text: "Later", disabled: at === now.length - 1 },
                { id: "out", text: "Take out" },
              ]}
            />
          </Item>
        ))}
      </ol>
      {cue.endless && <Endless role="status">{cue.endless}</Endless>}
      {edited !== null && (
        <MessageSheet
          cue={cue}
          message={now[edited] ?? null}
          onKeep={(message) =>
            edits.messages(cue.id, [...now.slice(0, edited), message, ...now.slice(edited + 1)])
          }
          onClose={() => setEdited(null)}
        />
      )}
    </Section>
  );
}
