import { useState } from "react";
import styled from "styled-components";

import { Refused } from "../../../api/client";
import { routeEdits, type Route } from "../../../api/output";
import type { LiveState } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button, Toggle } from "../../../ui/Button";
import { TextField } from "../../../ui/TextField";
import { Told, Wrong } from "../Told";
import { routeWords } from "../words";

const Row = styled.li`
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr) auto;
  gap: 4px 16px;
  align-items: start;
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
`;
const Sentence = styled.p`
  &[data-off] {
    color: var(--quiet);
  }
`;
const Line = styled.form`
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 8px;
`;
const Ways = styled.div`
  display: flex;
`;

interface Props {
  route: Route;
  state: LiveState["routes"][number] | undefined;
  onToggle: (on: boolean) => void;
  onForm: () => void;
}

/** A route as a sentence, with how it does; its line can be typed anew. */
export function RouteRow({ route, state, onToggle, onForm }: Props) {
  const [line, setLine] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  async function retype() {
    try {
      await routeEdits.retype(route.id, line ?? "");
      setLine(null);
    } catch (error) {
      setProblem(error instanceof Refused ? error.message : String(error));
    }
  }
  const act = (id: string) => {
    if (id === "form") onForm();
    else if (id === "delete") void routeEdits.remove(route.id);
  };
  return (
    <Row aria-label={route.line}>
      <Toggle
        data-variant="small"
        isSelected={route.on}
        onChange={onToggle}
        aria-label={`Send: ${route.line}, ${route.on ? "On" : "Off"}`}
      >
        {route.on ? "On" : "Off"}
      </Toggle>
      {line === null ? (
        <div>
          <Sentence data-off={!route.on || undefined}>{route.words}</Sentence>
          {state && route.on && <Told>{routeWords(state)}</Told>}
          {state?.text && route.on && <Wrong role="status">{state.text}</Wrong>}
        </div>
      ) : (
        <Line
          onSubmit={(event) => {
            event.preventDefault();
            void retype();
          }}
        >
          <TextField
            label={`Line of ${route.line}`}
            hideLabel
            autoFocus
            value={line}
            problem={problem}
            onChange={(text) => {
              setLine(text);
              setProblem("");
            }}
            onKeyDown={(event) => event.key === "Escape" && setLine(null)}
          />
          <Button type="submit">Keep</Button>
          <Button data-variant="plain" onPress={() => setLine(null)}>
            Leave it
          </Button>
        </Line>
      )}
      <Ways>
        {line === null && (
          <Button
            data-variant="plain"
            aria-label={`Change ${route.line}`}
            onPress={() => {
              setLine(route.line);
              setProblem("");
            }}
          >
            Change
          </Button>
        )}
        <ActionMenu
          label={route.line}
          onAction={act}
          actions={[
            { id: "form", text: "All its fields" },
            { id: "delete", text: "Delete" },
          ]}
        />
      </Ways>
    </Row>
  );
}
