import { useState } from "react";
import styled from "styled-components";

import { actionListEdits, type ActionList } from "../../../api/actionLists";
import { Refused } from "../../../api/client";
import { act } from "../../../live/socket";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { TextField } from "../../../ui/TextField";
import { StepList } from "../../cues/content/StepList";
import type { Message } from "../../cues/messages";

const Panel = styled.div`
  display: grid;
  gap: 12px;
  align-content: start;
  min-width: 0;
`;
const Fields = styled.div`
  display: grid;
  grid-template-columns: 1.4fr 1fr 0.8fr;
  gap: 12px;
`;
const Steps = styled.div`
  max-height: 320px;
  overflow: auto;
  border-top: 1px solid var(--line);
`;
const Tools = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
`;
const UNTIL = [
  { id: "end", text: "through to its end" },
  { id: "released", text: "until it is released" },
];
const KEYS = [
  { id: "", text: "no key" },
  ...Array.from({ length: 9 }, (_, n) => ({ id: `Shift+${n + 1}`, text: `Shift+${n + 1}` })),
];

/** An action list: its name, how it runs, on which key, and its steps. */
export function ActionListEditor({ list }: { list: ActionList }) {
  const [name, setName] = useState(list.name);
  const [adding, setAdding] = useState(false);
  const [problem, setProblem] = useState("");
  const { document } = list;
  const keep = (changes: object, called = list.name) =>
    actionListEdits.change(list.id, { name: called, document: { ...document, ...changes } });
  function tried(changes: object, called?: string) {
    setProblem("");
    keep(changes, called).catch((error: unknown) =>
      setProblem(error instanceof Refused ? error.message : String(error)),
    );
  }
  const run = (down: boolean) => act({ do: "run-actions", actions: list.id, down });
  const held = document.until === "released";
  return (
    <Panel>
      <Fields>
        <TextField
          label="Name"
          value={name}
          onChange={setName}
          onBlur={() => name.trim() && name !== list.name && tried({}, name.trim())}
          maxLength={80}
        />
        <Choice
          label="Runs"
          options={UNTIL}
          value={document.until ?? "end"}
          onChange={(until) => tried({ until })}
        />
        <Choice label="Key" options={KEYS} value={document.key ?? ""} onChange={(key) => tried({ key })} />
      </Fields>
      {problem && <p role="alert">{problem}</p>}
      <Steps>
        <StepList
          steps={list.steps.map((one) => ({ message: one.step as Message, words: one.words, at: one.at }))}
          adding={adding}
          onAdded={() => setAdding(false)}
          onPut={(steps) => keep({ steps })}
        />
        {!list.steps.length && <p>No steps yet.</p>}
      </Steps>
      <Tools>
        <Button onPress={() => setAdding(true)}>Add a step</Button>
        <Button
          isDisabled={!list.steps.length}
          onPressStart={() => run(true)}
          onPressEnd={() => held && run(false)}
        >
          {held ? "Run it while held" : "Run it"}
        </Button>
        <Button data-variant="plain" onPress={() => void actionListEdits.remove(list.id)}>
          Delete it
        </Button>
      </Tools>
      {list.used_by.length > 0 && <p>On {list.used_by.join(", ")}.</p>}
    </Panel>
  );
}
