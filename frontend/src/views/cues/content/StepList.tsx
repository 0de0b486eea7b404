import { useState } from "react";
import styled from "styled-components";

import { tell } from "../../../api/queries";
import { ActionMenu } from "../../../ui/ActionMenu";
import { seconds } from "../cues";
import { moved, type Message } from "../messages";
import { MessageSheet } from "./MessageSheet";

const Steps = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
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

export interface Step {
  message: Message;
  words: string;
  /** When it is done, in s. */
  at: number;
}
interface Props {
  steps: Step[];
  /** All of them as they shall be; refused is thrown. */
  onPut: (messages: Message[]) => Promise<unknown>;
  /** Whether a new one is being made. */
  adding: boolean;
  onAdded: () => void;
  /** The cue list that these are of: they do not go to it. */
  ownList?: number;
}

/** What is done one after the other, with when: changed, moved, taken out. */
export function StepList({ steps, onPut, adding, onAdded, ownList }: Props) {
  const [edited, setEdited] = useState<number | null>(null);
  const now = steps.map((one) => one.message);
  const open = adding ? now.length : edited;
  function does(at: number, id: string) {
    if (id === "edit") setEdited(at);
    if (id === "up") onPut(moved(now, at, -1)).catch(tell);
    if (id === "down") onPut(moved(now, at, 1)).catch(tell);
    if (id === "out") onPut(now.filter((_, n) => n !== at)).catch(tell);
  }
  function close() {
    setEdited(null);
    onAdded();
  }
  return (
    <>
      <Steps>
        {steps.map((one, at) => (
          <Item key={at}>
            <time>{one.at ? `+${seconds(one.at)} s` : "at once"}</time>
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
      </Steps>
      {open !== null && (
        <MessageSheet
          message={now[open] ?? null}
          isFirst={open === 0}
          ownList={ownList}
          onKeep={(message) => onPut([...now.slice(0, open), message, ...now.slice(open + 1)])}
          onClose={close}
        />
      )}
    </>
  );
}
