import { memo } from "react";
import styled from "styled-components";

import type { BuskPad, BuskRow, RowTold } from "../../../api/busk";
import { act } from "../../../live/socket";
import { onPage, padWidth, type Room } from "../layout";
import { letterOf } from "../keys";
import { EffectTools } from "./EffectTools";
import { Pad } from "./Pad";
import { PadFrame, PadWords } from "./PadFrame";

const Line = styled.div`
  display: flex;
  height: 100%;
  min-width: 0;
  padding-left: 1px;
  overflow: hidden;
`;

interface Props {
  row: BuskRow;
  told: RowTold | null;
  room: Room;
  page: number;
  letters: boolean;
  clash: (pad: BuskPad) => string;
}

/** The pads of a section of a row: none at the head, then those of the page that is shown. */
export const RowSection = memo(function RowSection({ row, told, room, page, letters, clash }: Props) {
  const { section, seen } = room;
  const pads = onPage(row[section], seen, page);
  const width = padWidth(room, row[section].length);
  const held = new Map((told?.held ?? []).map((one) => [one.pad, one.covered]));
  const waiting = new Map(told?.waiting as [number, number | null][] | undefined);
  const isOn = (pad: BuskPad) =>
    section === "effects"
      ? !!told?.on.includes(pad.id)
      : section === "messages"
        ? told?.sent === pad.id
        : held.has(pad.id);
  const any = row[section].some(isOn);
  return (
    <Line role="group" aria-label={`${row.name}, ${section}`} style={{ width: room.width }}>
      {section === "effects" ? (
        <EffectTools row={row} told={told} />
      ) : (
        section !== "messages" && (
          <PadFrame
            style={{ "--pad": "40px" } as React.CSSProperties}
            aria-label={`${row.name}: none, ${section}`}
            aria-pressed={!any}
            data-none={section}
            onPressStart={() => act({ do: "no-pad", row: row.id, section: section as "colour" })}
          >
            <PadWords>none</PadWords>
          </PadFrame>
        )
      )}
      {pads.map((pad, place) => (
        <Pad
          key={pad.id}
          row={row}
          section={section}
          pad={pad}
          width={width}
          on={isOn(pad)}
          covered={(held.get(pad.id) ?? 0) >= 1}
          waits={waiting.has(pad.id) ? (waiting.get(pad.id) ?? null) : undefined}
          clash={section === "colour" && row.kind === "lights" ? clash(pad) : ""}
          letter={letters ? letterOf(section, place) : ""}
        />
      ))}
    </Line>
  );
});
