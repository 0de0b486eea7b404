import styled from "styled-components";

import type { Family, useHand } from "../../api/hand";
import { useDraft } from "../../api/queries";
import { ActionMenu } from "../../ui/ActionMenu";
import { Button } from "../../ui/Button";
import { HandTools } from "./HandTools";

const List = styled.ul`
  list-style: none;
  margin: 4px 0 8px;
  padding: 0;
  li {
    display: flex;
    align-items: center;
    gap: 12px;
    min-height: 36px;
    border-bottom: 1px solid var(--line);
  }
  span {
    flex: 1;
  }
`;
const Quiet = styled.p`
  color: var(--quiet);
  font-size: 14px;
`;
const Head = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 36px;
`;
const FAMILIES: Family[] = ["intensity", "position", "colour", "beam"];
const heads = (count: number) => `${count} head${count === 1 ? "" : "s"}`;

interface Props {
  selection: string[];
  hand: ReturnType<typeof useHand>;
}

/** What is set by hand and not kept yet, attribute by attribute. */
export function DraftPanel({ selection, hand }: Props) {
  const { data: draft } = useDraft();
  if (!draft) return null;
  const values = Object.entries(draft.values).map(
    ([attribute, given]) => [attribute, Object.keys(given).length] as const,
  );
  const empty = !values.length && !draft.effects.length;
  return (
    <section aria-label="Draft">
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
      </Head>
      <HandTools />
      {empty && (
        <Quiet>Nothing is set by hand. What you set here stays on stage until it is taken out.</Quiet>
      )}
      <List>
        {values.map(([attribute, count]) => (
          <li key={attribute}>
            <span>
              {attribute.replace("_", " ")}, {heads(count)}
            </span>
            <Button
              data-variant="small"
              aria-label={`Take out ${attribute.replace("_", " ")}`}
              onPress={() => hand.takeBack([attribute], null)}
            >
              Take out
            </Button>
          </li>
        ))}
        {draft.effects.map((effect) => (
          <li key={effect.id}>
            <span>
              {effect.name}, {heads(effect.heads.length)}
            </span>
          </li>
        ))}
      </List>
      {!empty && (
        <Button onPress={() => hand.clear()} aria-label="Clear the draft">
          Clear the draft
        </Button>
      )}
    </section>
  );
}
