import { useState } from "react";
import styled from "styled-components";

import { Refused, type Schemas } from "../../../api/client";
import { routeEdits, useFound } from "../../../api/output";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Tick } from "../../../ui/Tick";
import { say } from "../../../ui/Toasts";
import { ago } from "../words";
import { AgreeSheet } from "./AgreeSheet";

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  align-items: center;
`;
const List = styled.ul`
  list-style: none;
  margin: 4px 0 12px;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 12px;
    align-items: center;
    padding: 8px 0;
    border-bottom: 1px solid var(--line);
  }
`;
const Quiet = styled.p`
  color: var(--quiet);
  font-size: 14px;
`;
const Wrong = styled.p`
  border-left: 3px solid var(--bone);
  padding-left: 8px;
  margin: 8px 0;
`;
const HERE = "here";

/** Nodes and other sources on the network, and where they are looked for. */
export function FoundPanel({ interfaces }: { interfaces: Schemas["InterfaceView"][] }) {
  const { data: found } = useFound();
  const [asked, setAsked] = useState<string | null>(null);
  if (!found) return <section aria-label="Found on the network" />;
  const look = (name: string) => {
    if (name !== HERE && found.ask[name]) setAsked(name);
    else void routeEdits.listen(true, name === HERE ? "" : name, false);
  };
  const makeRoute = async (line: string) => {
    try {
      await routeEdits.add(line);
      say("Made a route, which is off: switch it on.", "done");
    } catch (error) {
      say(error instanceof Refused ? error.message : String(error));
    }
  };
  const faults = Object.entries(found.faults);
  return (
    <section aria-label="Found on the network">
      <h2>Found on the network</h2>
      <Tools>
        <Tick
          isSelected={found.listening}
          onChange={(on) => void routeEdits.listen(on, found.look_on, false)}
        >
          Listen
        </Tick>
        <Choice
          label="Look on"
          row
          isDisabled={!found.listening}
          value={found.look_on || HERE}
          options={[
            { id: HERE, text: "this machine alone" },
            ...interfaces.filter((one) => one.broadcast).map((one) => ({ id: one.name, text: one.words })),
          ]}
          onChange={(key) => look(String(key))}
        />
      </Tools>
      {found.rivals.map((text) => (
        <Wrong key={text} role="status">
          {text}
        </Wrong>
      ))}
      {found.troubles.map((text) => (
        <Wrong key={text}>{text}</Wrong>
      ))}
      <List aria-label="Art-Net nodes">
        {found.nodes.map((node) => (
          <li key={node.address}>
            <div>
              <b>{node.long_name || node.name}</b> at {node.address}
              <Quiet>
                Art-Net, universes {node.outputs}.{" "}
                {node.silent ? `Silent: last heard ${ago(node.ago_s)}.` : `Answered ${ago(node.ago_s)}.`}
                {node.report && !node.silent && ` It says: ${node.report}`}
              </Quiet>
            </div>
            {node.routed ? (
              <Quiet>has a route</Quiet>
            ) : (
              <Button
                data-variant="small"
                aria-label={`Make a route to ${node.name}`}
                onPress={() => void makeRoute(node.line)}
              >
                Make a route
              </Button>
            )}
          </li>
        ))}
        {found.sources.map((source) => (
          <li key={`${source.address} ${source.name}`}>
            <div>
              <b>{source.name}</b> at {source.address}
              <Quiet>
                Another source of E1.31, universes {source.universes}. Last heard {ago(source.ago_s)}.
              </Quiet>
            </div>
          </li>
        ))}
      </List>
      {found.listening && !found.nodes.length && !found.sources.length && (
        <Quiet>Nothing yet. Nodes are asked every 3 seconds.</Quiet>
      )}
      {!found.listening && <Quiet>Not listening: nothing is asked, and nobody else is heard.</Quiet>}
      {faults.length > 0 && (
        <Quiet>
          Packets that could not be read: {faults.map(([what, count]) => `${count} × ${what}`).join("; ")}.
        </Quiet>
      )}
      {found.listening && <Quiet>Listens on {found.ports.join(", ")}.</Quiet>}
      {asked && (
        <AgreeSheet
          title={`Look for nodes on ${asked}?`}
          text={found.ask[asked] ?? ""}
          verb="Look there"
          onAgree={() => void routeEdits.listen(true, asked, true)}
          onClose={() => setAsked(null)}
        />
      )}
    </section>
  );
}
