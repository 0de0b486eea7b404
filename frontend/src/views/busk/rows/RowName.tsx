import { Button } from "react-aria-components";
import styled from "styled-components";

import type { BuskRow, RowTold } from "../../../api/busk";
import { useIsYours } from "../../../api/timelines";
import type { Aspect } from "../layout";
import { NowBand } from "./NowBand";

const Name = styled(Button)`
  width: 100%;
  height: 100%;
  display: grid;
  grid-template-rows: auto auto 1fr;
  align-content: start;
  gap: 0;
  padding: 1px 4px 0 6px;
  border: 0;
  border-left: 3px solid transparent;
  background: transparent;
  color: var(--bone);
  font: inherit;
  text-align: left;
  cursor: pointer;
  min-width: 0;
  &[data-chosen] {
    border-left-color: var(--bone);
    background: var(--raised);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
  b {
    font-size: 14px;
    font-weight: 650;
    line-height: 1.15;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  small {
    font-size: 12px;
    line-height: 1.15;
    color: var(--quiet);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  kbd {
    font: 650 12px var(--numbers);
    background: var(--bone);
    color: var(--on-bone);
    padding: 0 3px;
    margin-right: 4px;
  }
`;

/** What a row holds of what is not shown in its pads now, in words. */
export function heldElsewhere(row: BuskRow, told: RowTold | null, aspect: Aspect): string {
  const other = aspect === "position" ? row.beam : row.position;
  const held = new Set(told?.held.map((one) => one.pad));
  return other
    .filter((pad) => held.has(pad.id))
    .map((pad) => pad.name)
    .join(", ");
}

/** What of rows a hand takes from a song, and of which row. */
const OF_ROWS = /^(?:row|row-level|row-depth|pad|flash):(\d+)(?::|$)/;

interface Props {
  row: BuskRow;
  told: RowTold | null;
  aspect: Aspect;
  /** That its colour is hard on the eye beside another, in words, and in short. */
  clash: string;
  clashShort: string;
  chosen: boolean;
  number: string;
  onChoose: () => void;
}

/** The name of a row, what it is, and what its lights are now. A tap chooses it for what acts on one row. */
export function RowName({ row, told, aspect, clash, clashShort, chosen, number, onChoose }: Props) {
  const elsewhere = heldElsewhere(row, told, aspect);
  const dark = told?.dark && row.kind !== "messages" && row.kind !== "haze" && !row.waits;
  const plain = [dark && "dark", elsewhere, row.kind === "messages" ? "messages" : row.lights];
  const isYours = useIsYours(({ subject }) => OF_ROWS.exec(subject)?.[1] === String(row.id));
  const words =
    (isYours && "yours: the song waits") || row.waits || clashShort || plain.filter(Boolean).join(" · ");
  return (
    <Name
      aria-label={`${row.name} ${words}${clash && `, ${clash}`}`}
      aria-pressed={chosen}
      data-chosen={chosen || undefined}
      data-row={row.id}
      onPress={onChoose}
    >
      <b>
        {number && <kbd aria-hidden="true">{number}</kbd>}
        {row.name}
      </b>{" "}
      <small title={clash || words}>{words}</small>
      {row.heads.length > 0 && row.kind !== "haze" && <NowBand heads={row.heads} />}
    </Name>
  );
}
