import { useState } from "react";
import styled from "styled-components";

import { useSpecials, useSpecialsTold } from "../../../api/specials";
import { act, useLivePart } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Fader } from "../../../ui/Fader";
import { LEVEL, NAME, onPage, pagesOf } from "../layout";
import { PadFrame, PadWords } from "../rows/PadFrame";
import { SpecialPad } from "./SpecialPad";

export const SPECIALS_ROW = 42;
const LEAST = 92;
const MOST = 168;
const TOOL = 44;
const FOR_ALL_WORDS = 164;
const Line = styled.div`
  display: grid;
  grid-template-columns: ${NAME}px ${LEVEL}px minmax(0, 1fr);
  gap: 6px;
  height: ${SPECIALS_ROW}px;
  padding-top: 1px;
  border-top: 1px solid var(--edge);
`;
const Name = styled.div`
  padding: 3px 4px 0 9px;
  line-height: 1.15;
  overflow: hidden;
  h2 {
    font-size: 14px;
    font-weight: 650;
  }
  small {
    font-size: 12px;
    color: var(--quiet);
    white-space: nowrap;
  }
`;
const Pads = styled.div`
  display: flex;
  min-width: 0;
  padding-left: 1px;
`;
const Tools = styled.div`
  display: flex;
  button {
    min-height: 40px;
  }
`;

interface Props {
  width: number;
  /** Opens one to be made (null) or changed. */
  onEdit: (id: number | null) => void;
}

/** Lights taken out of the look for a person or a spot: one fader for all of them, and a pad for each. */
export function SpecialsRow({ width, onEdit }: Props) {
  const { data } = useSpecials();
  const told = useSpecialsTold();
  const level = useLivePart((state) => state?.specials_level ?? 1);
  const [page, setPage] = useState(0);
  const specials = data?.specials ?? [];
  const room = width - 2 * TOOL - TOOL;
  const seen = Math.max(Math.floor(room / LEAST), 1);
  const count = pagesOf(specials.length, seen);
  const shown = onPage(specials, seen, page);
  const pad = Math.min(Math.floor(room / Math.max(shown.length, 1)), MOST);
  const on = told?.filter((one) => one.on).length ?? 0;
  return (
    <Line role="group" aria-label="Specials">
      <Name>
        <h2>Specials</h2>
        <small>{on ? `${on} on` : specials.length ? "none on" : "none yet"}</small>
      </Name>
      <Fader
        label="Level of all specials"
        value={Math.round(level * 100)}
        words={(value) => `${value}`}
        onMove={(value) => act({ do: "specials-level", value: value / 100 })}
      />
      <Pads style={{ "--pad": `${pad}px` } as React.CSSProperties}>
        <PadFrame
          style={{ "--pad": `${TOOL}px` } as React.CSSProperties}
          aria-label="Specials, all home"
          onPress={() => act({ do: "specials-home" })}
        >
          <PadWords>all home</PadWords>
        </PadFrame>
        {shown.map((one) => (
          <SpecialPad
            key={one.id}
            special={one}
            told={told?.find((state) => state.id === one.id)}
            narrow={pad < FOR_ALL_WORDS}
          />
        ))}
        <Tools>
          {count > 1 && (
            <PadFrame
              style={{ "--pad": `${TOOL}px` } as React.CSSProperties}
              aria-label="More specials"
              onPress={() => setPage((page + 1) % count)}
            >
              <PadWords>
                {Math.min(page, count - 1) + 1}/{count}
              </PadWords>
            </PadFrame>
          )}
          {specials.length === 0 ? (
            <PadFrame style={{ "--pad": "120px" } as React.CSSProperties} onPress={() => onEdit(null)}>
              <PadWords>Make a special</PadWords>
            </PadFrame>
          ) : (
            <ActionMenu
              label="Specials"
              onAction={(id) => onEdit(id === "new" ? null : Number(id))}
              actions={[
                { id: "new", text: "Make a special" },
                ...specials.map((one) => ({ id: String(one.id), text: `Change ${one.name}` })),
              ]}
            />
          )}
        </Tools>
      </Pads>
    </Line>
  );
}
