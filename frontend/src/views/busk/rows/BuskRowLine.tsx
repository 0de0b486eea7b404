import { memo, useMemo } from "react";
import styled from "styled-components";

import { useRowTold, type BuskPad, type BuskRow, type Clashes } from "../../../api/busk";
import { act, useLivePart } from "../../../live/socket";
import { Fader } from "../../../ui/Fader";
import { clashOf, heldColours, type HeldColour } from "../hints";
import { LEVEL, NAME, rooms, shownSections, type Aspect } from "../layout";
import { RowName } from "./RowName";
import { RowSection } from "./RowSection";

const Line = styled.div`
  display: grid;
  grid-template-columns: ${NAME}px ${LEVEL}px minmax(0, 1fr);
  gap: 6px;
  height: var(--row);
  padding-bottom: 1px;
  border-top: 1px solid var(--line);
  &[data-kind="all"] {
    border-bottom: 1px solid var(--edge);
    border-top: 0;
  }
`;
const Sections = styled.div`
  display: flex;
  gap: 6px;
  min-width: 0;
`;
const Haze = styled.div`
  display: grid;
  grid-template-columns: 200px 200px;
  gap: 6px;
`;
const HAZE = [
  { attribute: "haze" as const, text: "output" },
  { attribute: "fan_speed" as const, text: "fan" },
];

interface Props {
  row: BuskRow;
  rows: BuskRow[];
  clashes: Clashes;
  aspect: Aspect;
  width: number;
  pages: Record<string, number>;
  chosen: boolean;
  onChoose: (row: number) => void;
  letters: boolean;
  number: string;
}

/** Colours that rows hold, told anew only when one of them changes. */
const useHeldColours = (rows: BuskRow[]): HeldColour[] =>
  useLivePart((state) => heldColours(rows, state?.rows ?? []));

/** A row of a busking page: name, level, and its pads. */
export const BuskRowLine = memo(function BuskRowLine(props: Props) {
  const { row, rows, clashes, aspect, width, pages, chosen, onChoose, letters, number } = props;
  const told = useRowTold(row.id);
  const held = useHeldColours(rows);
  const found = useMemo(() => rooms(shownSections(row, aspect), width), [row, aspect, width]);
  const clash = useMemo(() => {
    const others = held.filter((one) => one.row !== row.id);
    return (pad: BuskPad) => {
      const hard = clashOf(pad, row, others, clashes);
      return hard ? `hard on the eye beside ${hard.name} of ${hard.rowName}` : "";
    };
  }, [held, clashes, row]);
  const own = held.find((one) => one.row === row.id);
  const ownPad = own && row.colour.find((pad) => pad.palette === own.palette);
  const beside = ownPad ? clashOf(ownPad, row, held, clashes) : null;
  return (
    <Line data-kind={row.kind} role="group" aria-label={row.name}>
      <RowName
        row={row}
        told={told}
        aspect={aspect}
        clash={ownPad ? clash(ownPad) : ""}
        clashShort={beside ? `hard beside ${beside.name}` : ""}
        chosen={chosen}
        number={letters ? number : ""}
        onChoose={() => onChoose(row.id)}
      />
      {row.kind === "haze" || row.kind === "messages" ? (
        <span />
      ) : (
        <Fader
          label={`${row.name}: level`}
          value={Math.round((told?.level ?? 0) * 100)}
          words={(value) => `${value}`}
          onMove={(value) => act({ do: "row-level", row: row.id, value: value / 100 })}
          isDisabled={!!row.waits}
        />
      )}
      {row.kind === "haze" ? (
        <Haze>
          {HAZE.map(({ attribute, text }) => (
            <Fader
              key={attribute}
              label={`${row.name}: ${text}`}
              value={Math.round(told?.values[attribute] ?? 0)}
              words={(value) => `${text} ${value} %`}
              onMove={(value) => act({ do: "row-value", row: row.id, attribute, value })}
              isDisabled={!!row.waits}
            />
          ))}
        </Haze>
      ) : (
        <Sections>
          {found.map((room) => (
            <RowSection
              key={room.section}
              row={row}
              told={told}
              room={room}
              page={pages[room.section] ?? 0}
              letters={letters && chosen}
              clash={clash}
            />
          ))}
        </Sections>
      )}
    </Line>
  );
});
