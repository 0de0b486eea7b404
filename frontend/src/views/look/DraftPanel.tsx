import { useState } from "react";
import styled from "styled-components";

import type { Family, useHand } from "../../api/hand";
import { useDraft } from "../../api/queries";
import { act, useLivePart } from "../../live/socket";
import { ActionMenu } from "../../ui/ActionMenu";
import { Button, Toggle } from "../../ui/Button";
import { HandTools } from "./HandTools";
import { byHead, headsInWords } from "./values";

const Panel = styled.section`
  display: flex;
  flex-direction: column;
  min-height: 0;
  height: 100%;
`;
const List = styled.ul`
  list-style: none;
  margin: 2px 0;
  padding: 0;
  overflow: auto;
  flex: 1;
  min-height: 0;
  font-size: 14px;
  li {
    display: flex;
    align-items: center;
    gap: 8px;
    min-height: 30px;
    border-bottom: 1px solid var(--line);
  }
  li > span {
    flex: 1;
    min-width: 0;
  }
  button {
    min-height: 26px;
  }
`;
const Quiet = styled.p`
  color: var(--quiet);
  font-size: 14px;
`;
const Head = styled.div`
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 2px 6px;
  min-height: 32px;
  h2 {
    flex: 1;
  }
  button {
    min-height: 28px;
    padding: 0 8px;
  }
`;
const FAMILIES: Family[] = ["intensity", "position", "colour", "beam"];

interface Props {
  selection: string[];
  hand: ReturnType<typeof useHand>;
}

/** What is set by hand and not kept yet: by value or by head, each taken out alone. */
export function DraftPanel({ selection, hand }: Props) {
  const { data: draft } = useDraft();
  const blind = useLivePart((state) => state?.blind ?? false);
  const [heads, setHeads] = useState(false);
  if (!draft) return null;
  const { listed, effects } = draft;
  const empty = !listed.length && !effects.length;
  return (
    <Panel aria-label="Draft">
      <Head>
        <h2>Draft</h2>
        {selection.length > 0 && (
          <ActionMenu
            label="Take from stage"
            opener="Take from stage …"
            variant="small"
            onAction={(id) => hand.take(selection, id === "all" ? FAMILIES : [id as Family])}
            actions={[
              { id: "all", text: "All that is seen now" },
              ...FAMILIES.map((family) => ({ id: family, text: `Its ${family}` })),
            ]}
          />
        )}
        <Button
          data-variant="small"
          aria-label="Prepare blind"
          isDisabled={blind}
          onPress={() => act({ do: "blind" })}
        >
          {blind ? "Is blind" : "Blind"}
        </Button>
      </Head>
      <HandTools />
      {empty ? (
        <Quiet>Nothing is set by hand. What you set here stays on stage until it is taken out.</Quiet>
      ) : (
        <Head>
          <Toggle data-variant="small" isSelected={heads} onChange={setHeads}>
            By head
          </Toggle>
          <span style={{ flex: 1 }} />
          <Button data-variant="small" onPress={() => hand.clear()} aria-label="Clear the draft">
            Clear
          </Button>
        </Head>
      )}
      <List>
        {!heads &&
          listed.map((one) => (
            <li key={`${one.label} ${one.source}`}>
              <span>
                {one.label}: {one.words || one.source}
                {one.source === "fan" && " (fan)"}, {headsInWords(one.heads.length)}
              </span>
              <Button
                data-variant="small"
                aria-label={`Take out ${one.label}, ${one.source}`}
                onPress={() => hand.takeBack(one.attributes, one.heads)}
              >
                Take out
              </Button>
            </li>
          ))}
        {heads &&
          byHead(listed).map(({ head, attributes, words }) => (
            <li key={head}>
              <span>
                <b>{head}</b> {words}
              </span>
              <Button
                data-variant="small"
                aria-label={`Take out ${head}`}
                onPress={() => hand.takeBack(attributes, [head])}
              >
                Take out
              </Button>
            </li>
          ))}
        {effects.map((effect) => (
          <li key={effect.id}>
            <span>
              {effect.name}, {headsInWords(effect.heads.length)}
            </span>
          </li>
        ))}
      </List>
    </Panel>
  );
}
