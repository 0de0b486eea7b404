import styled from "styled-components";

import type { Matches, Pair } from "../../../api/rerig";
import { useLibrary } from "../../../api/queries";
import { Choice } from "../../../ui/Choice";
import { Scroller } from "../../../ui/Scroller";
import { Tick } from "../../../ui/Tick";
import { MatchDrawing } from "./MatchDrawing";
import { SameWeave } from "./SameWeave";

const Frame = styled(Scroller)`
  min-width: 0;
  > :first-child {
    padding: 6px 12px 10px;
    display: grid;
    gap: 6px;
    align-content: start;
  }
  p {
    font-size: 15px;
  }
  ul {
    margin: 0;
    padding-left: 18px;
    color: var(--quiet);
    font-size: 15px;
  }
  .names {
    display: flex;
    justify-content: space-between;
    align-items: end;
    gap: 12px;
    flex-wrap: wrap;
  }
  h3 {
    font-size: 15px;
    font-weight: 650;
  }
`;
const WAYS = [
  { id: "middle", text: "from the middle" },
  { id: "place", text: "by place on stage" },
  { id: "order", text: "by order" },
  { id: "hand", text: "by hand" },
];

interface Props {
  pair: Pair;
  index: number;
  matches: Matches | undefined;
  effect: number;
  onEffect: (id: number) => void;
  onPair: (pair: Pair) => void;
}

/** How the lights of one pair are matched, seen as lines, in words, and as the same weave on both. */
export function MatchPanel({ pair, index, matches, effect, onEffect, onPair }: Props) {
  const { data: library } = useLibrary();
  const own = matches?.pairs[index];
  if (!pair.target || !own)
    return (
      <Frame>
        <p>
          {pair.target
            ? "Looking …"
            : `Nothing takes over from ${pair.source.name}: what they did goes. Choose a group beside it.`}
        </p>
      </Frame>
    );
  const more = pair.target.numbers.length > pair.source.numbers.length;
  return (
    <Frame>
      <div className="names">
        <Choice
          label="Matched"
          row
          options={WAYS}
          value={pair.way}
          onChange={(way) =>
            onPair({ ...pair, way: way as Pair["way"], match: way === "hand" ? own.match : [] })
          }
        />
        {more && (pair.way === "middle" || pair.way === "order") && (
          <Tick isSelected={pair.repeats} onChange={(repeats) => onPair({ ...pair, repeats })}>
            Repeat the row
          </Tick>
        )}
        <Choice
          label="seen in"
          row
          options={(library?.effects ?? [])
            .filter((one) => one.kept)
            .map((one) => ({ id: one.id, text: one.name }))}
          value={effect || null}
          placeholder="choose an effect"
          onChange={(id) => onEffect(Number(id))}
        />
      </div>
      <MatchDrawing pair={pair} match={own.match} onChange={onPair} />
      <p role="status">{own.sentence}</p>
      {matches && <SameWeave matches={matches} />}
      {own.differences.length > 0 && (
        <ul aria-label="What is different">
          {own.differences.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
    </Frame>
  );
}
