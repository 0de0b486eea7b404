import styled from "styled-components";

import type { Pair, PairMatch, PairSide } from "../../../api/rerig";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Scroller } from "../../../ui/Scroller";
import { followed } from "./match";

const Frame = styled(Scroller)`
  border-right: 1px solid var(--line);
  ul {
    margin: 0;
    padding: 0;
  }
  li {
    list-style: none;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 152px 74px;
    align-items: center;
    gap: 8px;
    padding: 2px 12px;
    border-bottom: 1px solid var(--line);
  }
  li[data-chosen] {
    background: var(--raised);
  }
  li > :first-child {
    justify-content: flex-start;
    padding: 0;
    min-width: 0;
    text-align: left;
  }
  li button span {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  small {
    font-size: 14px;
    color: var(--quiet);
  }
  .head {
    color: var(--quiet);
    font-size: 14px;
    padding: 6px 12px;
  }
  .more {
    padding: 8px 12px;
  }
`;
const NONE = "none";

interface Props {
  pairs: Pair[];
  matches: PairMatch[];
  chosen: number;
  /** Lights that can give, where pairs are made by hand. */
  sources: PairSide[];
  targets: PairSide[];
  onChosen: (index: number) => void;
  onPairs: (pairs: Pair[]) => void;
}

const partOf = ({ name, numbers, group }: PairSide) => ({ name, numbers, group });
export const asPair = (source: PairSide, target: PairSide | null): Pair => ({
  source: partOf(source),
  target: target && partOf(target),
  way: "middle",
  repeats: false,
  match: [],
});

function status(pair: Pair, match: PairMatch | undefined) {
  if (!pair.target || !match) return "goes";
  const count = followed(match.match);
  return count === pair.source.numbers.length ? "all" : `${count} of ${pair.source.numbers.length}`;
}

/** Which group takes over from which. */
export function PairTable({ pairs, matches, chosen, sources, targets, onChosen, onPairs }: Props) {
  const left = sources.filter((one) => !pairs.some((pair) => pair.source.name === one.name));
  const names = new Map(targets.map((one) => [one.name, one]));
  function aim(index: number, name: string) {
    const target = names.get(name);
    const now = {
      ...pairs[index]!,
      target: target ? partOf(target) : null,
      way: "middle" as const,
      match: [],
    };
    onPairs(pairs.map((pair, n) => (n === index ? now : pair)));
    onChosen(index);
  }
  return (
    <Frame>
      <ul aria-label="Pairs of groups">
        {pairs.map((pair, n) => (
          <li key={pair.source.name} data-chosen={n === chosen || undefined}>
            <Button
              data-variant="plain"
              aria-pressed={n === chosen}
              onPress={() => onChosen(n)}
              aria-label={`Look at ${pair.source.name}`}
            >
              <span>
                {pair.source.name} <small>{pair.source.numbers.length}</small>
              </span>
            </Button>
            <Choice
              label={`Takes over from ${pair.source.name}`}
              hideLabel
              options={[
                { id: NONE, text: "nothing" },
                ...targets
                  .filter((one) => !sources.length || one.name !== pair.source.name)
                  .map((one) => ({ id: one.name, text: `${one.name} ${one.numbers.length}` })),
              ]}
              value={pair.target?.name ?? NONE}
              onChange={(name) => aim(n, String(name))}
            />
            <small>{status(pair, matches[n])}</small>
          </li>
        ))}
      </ul>
      {sources.length > 0 && (
        <div className="more">
          <Choice
            label={pairs.length ? "And from" : "From which group"}
            placeholder="choose a group"
            options={left.map((one) => ({ id: one.name, text: `${one.name} ${one.numbers.length}` }))}
            value={null}
            onChange={(name) => {
              onChosen(pairs.length);
              onPairs([
                ...pairs,
                asPair(
                  left.find((one) => one.name === name)!,
                  null,
                ),
              ]);
            }}
          />
        </div>
      )}
    </Frame>
  );
}
