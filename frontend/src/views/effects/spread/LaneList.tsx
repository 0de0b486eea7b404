import styled from "styled-components";
import { Button } from "react-aria-components";

import type { Lane } from "./spread";

const Lanes = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  font-size: 14px;
  li {
    display: grid;
    grid-template-columns: 50px 1fr 66px;
    gap: 6px;
    align-items: start;
    padding: 2px 0;
  }
  .quiet {
    color: var(--quiet);
    line-height: 30px;
  }
  .where {
    font-family: var(--numbers);
    text-align: right;
    line-height: 30px;
  }
`;
const Heads = styled.span`
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
`;
const One = styled(Button)`
  font: 13px var(--numbers);
  color: var(--bone);
  background: transparent;
  border: 1px solid transparent;
  border-radius: 2px;
  min-height: 30px;
  min-width: 34px;
  padding: 0 3px;
  cursor: pointer;
  &[data-hovered] {
    border-color: var(--edge);
  }
  &[data-chosen] {
    background: var(--bone);
    color: var(--on-bone);
  }
`;
const MOST_LANES = 24;
const MOST_HEADS = 12;

interface Props {
  lanes: Lane[];
  relay: boolean;
  chosen: string | null;
  onChoose: (head: string) => void;
}

/** Heads by lane; press one to give it parts of its own. */
export function LaneList({ lanes, relay, chosen, onChoose }: Props) {
  return (
    <>
      <Lanes aria-label="Lanes">
        {lanes.slice(0, MOST_LANES).map(({ lane, heads, offset }) => (
          <li key={lane}>
            <span className="quiet">Lane {lane + 1}</span>
            <Heads>
              {heads.slice(0, MOST_HEADS).map((head) => (
                <One
                  key={head}
                  aria-label={`Head ${head}`}
                  aria-pressed={head === chosen}
                  data-chosen={head === chosen || undefined}
                  onPress={() => onChoose(head)}
                >
                  {head}
                </One>
              ))}
              {heads.length > MOST_HEADS && (
                <span className="quiet">and {heads.length - MOST_HEADS} more</span>
              )}
            </Heads>
            <span className="where">
              {relay ? `turn ${Math.round(offset * 100) / 100}` : `${Math.round(offset * 360)}°`}
            </span>
          </li>
        ))}
      </Lanes>
      {lanes.length > MOST_LANES && <p>and {lanes.length - MOST_LANES} more lanes</p>}
    </>
  );
}
