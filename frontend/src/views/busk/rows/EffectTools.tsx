import styled from "styled-components";

import type { BuskRow, RowTold } from "../../../api/busk";
import { act } from "../../../live/socket";
import { Fader } from "../../../ui/Fader";
import { SmallToggle } from "../../../ui/SmallToggle";

const Tools = styled.div`
  display: grid;
  grid-template-columns: 40px 40px;
  gap: 3px;
  width: 86px;
  flex: none;
  padding-right: 3px;
`;
const MOVES: Record<string, string> = { position: "movement" };

/** What the depth of a row acts on, in a word or two. */
export const movesWords = (moves: string[]) =>
  moves.length ? moves.map((one) => MOVES[one] ?? one).join(", ") : "nothing that runs";

const SHORT: Record<string, string> = { intensity: "level", position: "move" };

/** The same in one word that fits: of several, the first and a plus. */
export const shortly = (moves: string[]) =>
  moves.length ? `${SHORT[moves[0]!] ?? moves[0]!}${moves.length > 1 ? "+" : ""}` : "";

/** Over all effects of a row: how deep they go, and whether they are played in pairs. */
export function EffectTools({ row, told }: { row: BuskRow; told: RowTold | null }) {
  const moves = movesWords(told?.moves ?? []);
  return (
    <Tools>
      <Fader
        label={`${row.name}: depth of ${moves}`}
        value={Math.round((told?.depth ?? 1) * 100)}
        words={(value) => `${value}`}
        foot={shortly(told?.moves ?? [])}
        onMove={(value) => act({ do: "row-depth", row: row.id, value: value / 100 })}
      />
      <SmallToggle
        aria-label={`${row.name}: effects in pairs`}
        isSelected={told?.pairs ?? false}
        onChange={(on) => act({ do: "row-pairs", row: row.id, on })}
      >
        in pairs
      </SmallToggle>
    </Tools>
  );
}
