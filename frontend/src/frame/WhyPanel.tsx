import { useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import styled from "styled-components";

import { api, Refused, take } from "../api/client";
import { useLivePart } from "../live/socket";
import { desk, useDesk } from "../state";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { WhyLine } from "./WhyLine";

const Panel = styled.aside`
  position: fixed;
  right: 0;
  top: 52px;
  bottom: 56px;
  width: min(460px, 90vw);
  z-index: 60;
  background: var(--ink);
  border-left: 1px solid var(--edge);
  padding: 10px 16px 16px;
  overflow: auto;
  display: grid;
  align-content: start;
  gap: 8px;
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
`;
const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  h2 {
    flex: 1;
  }
`;
const Slots = styled.table`
  border-collapse: collapse;
  font-size: 14px;
  td {
    padding: 2px 14px 2px 0;
  }
  td:nth-child(n + 2) {
    font-family: var(--numbers);
  }
`;
const AGAIN_MS = 300;

/** The whole way of a value, from home to the slots: each line with what set it, its share and the value after it. */
export function WhyPanel() {
  const why = useDesk((state) => state.why);
  const blind = useLivePart((state) => state?.blind ?? false);
  const { data, error } = useQuery({
    queryKey: ["why", why],
    enabled: why !== null,
    queryFn: () => take(api.POST("/api/trace", { body: why! })),
    refetchInterval: AGAIN_MS,
    placeholderData: (before) => before,
  });
  if (!why) return null;
  return (
    <Panel aria-label="Why">
      <Head>
        <h2>{data ? `Why: ${data.fixture} ${data.head}` : "Why"}</h2>
        <Button data-variant="plain" aria-label="Close" onPress={() => desk.ask(null)}>
          <X size={18} aria-hidden="true" />
        </Button>
      </Head>
      {error instanceof Refused && <p role="alert">{error.message}</p>}
      {data && (
        <>
          <Choice
            label="Value"
            row
            options={data.attributes.map(({ name, label }) => ({ id: name, text: label }))}
            value={data.attribute}
            onChange={(attribute) => desk.ask({ head: data.head, attribute: String(attribute) })}
          />
          {blind && <p>Blind: what is prepared is not on stage, and not in this list.</p>}
          <ol aria-label="From home to the stage">
            {data.lines.map((line, n) => (
              <WhyLine key={n} line={line} />
            ))}
          </ol>
          <h2>Comes out at</h2>
          {data.slots.length ? (
            <Slots>
              <tbody>
                {data.slots.map((slot) => (
                  <tr key={`${slot.universe} ${slot.slot}`}>
                    <td>{slot.name}</td>
                    <td>
                      universe {slot.universe}, slot {slot.slot}
                    </td>
                    <td>{slot.value}</td>
                    <td>{slot.held && "held by hand"}</td>
                  </tr>
                ))}
              </tbody>
            </Slots>
          ) : (
            <p>No slot of its own: the fixture has no address, or no channel for it.</p>
          )}
          <Button
            onPress={() => {
              desk.select([data.head]);
              desk.showOutput("slots");
            }}
          >
            Show its slots
          </Button>
        </>
      )}
    </Panel>
  );
}
