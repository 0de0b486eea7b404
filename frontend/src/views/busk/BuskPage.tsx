import { useCallback, useMemo, useState } from "react";
import styled from "styled-components";

import type { BuskPage as Page, Clashes, Section } from "../../api/busk";
import { useSpecials } from "../../api/specials";
import { useConnection } from "../../live/socket";
import { Button } from "../../ui/Button";
import { useSize } from "../../ui/useSize";
import { FlashBar } from "./hands/FlashBar";
import { usePadKeys } from "./hands/usePadKeys";
import { LEVEL, NAME, rowRoom, type Aspect } from "./layout";
import { PageHead, pagesIn } from "./PageHead";
import { BuskRowLine } from "./rows/BuskRowLine";
import { NextChange } from "./side/NextChange";
import { Tempos } from "./side/Tempos";
import { TwoColours } from "./side/TwoColours";
import { WavesOfAll } from "./side/WavesOfAll";
import { WaysHome } from "./side/WaysHome";
import { SpecialEditor } from "./specials/SpecialEditor";
import { SPECIALS_ROW, SpecialsRow } from "./specials/SpecialsRow";

const SIDE = 228;
const Frame = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr) ${SIDE}px;
  height: 100%;
  &[data-lost] {
    filter: saturate(0.25) brightness(0.7);
  }
`;
const Main = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: 40px minmax(0, 1fr) ${SPECIALS_ROW}px 42px;
  padding: 0 8px;
  min-width: 0;
  min-height: 0;
`;
const Rows = styled.div`
  overflow: hidden;
  min-height: 0;
`;
const Side = styled.aside`
  border-left: 1px solid var(--line);
  padding: 3px 6px;
  display: grid;
  align-content: space-between;
  gap: 3px;
  min-height: 0;
  overflow: hidden;
  &[data-whole] {
    display: block;
  }
`;
const AROUND = NAME + LEVEL + 12;

interface Props {
  page: Page;
  clashes: Clashes;
  start: (more: React.ReactNode) => React.ReactNode;
}

/** The live page: rows by group. Nothing moves here by itself, and nothing opens over a row. */
export function BuskPage({ page, clashes, start }: Props) {
  const [size, measure] = useSize();
  const [aspect, setAspect] = useState<Aspect>("position");
  const [pages, setPages] = useState<Record<string, number>>({});
  const [first, setFirst] = useState(0);
  const top = page.rows[0]!;
  const [row, setRow] = useState(top.id);
  const chosen = page.rows.find((one) => one.id === row) ?? top;
  const { connected, engine } = useConnection();
  const specials = useSpecials().data?.specials ?? [];
  const [special, setSpecial] = useState<number | null | undefined>(undefined);
  const width = Math.max(size.width - AROUND, 300);
  const room = rowRoom(page.rows.length, size.height);
  const below = page.rows.slice(1);
  const fit = Math.max(room.seen - 1, 1);
  const from = Math.min(first, Math.max(below.length - fit, 0));
  const seen = useMemo(() => [top, ...below.slice(from, from + fit)], [page.rows, from, fit]); // eslint-disable-line react-hooks/exhaustive-deps -- both come from these
  const onTurn = useCallback(
    (section: Section, by: number) =>
      setPages((before) => {
        const count = pagesIn(page.rows, section, aspect, width);
        const at = Math.min(before[section] ?? 0, count - 1) + by;
        return { ...before, [section]: Math.min(Math.max(at, 0), count - 1) };
      }),
    [page.rows, aspect, width],
  );
  const letters = usePadKeys({
    rows: seen,
    chosen,
    onChoose: setRow,
    aspect,
    pages,
    width,
    onTurn,
  });
  return (
    <Frame aria-label={page.name} data-lost={!connected || !engine || undefined}>
      <Main>
        <PageHead
          rows={page.rows}
          width={width}
          aspect={aspect}
          onAspect={setAspect}
          pages={pages}
          onTurn={onTurn}
          start={start(
            below.length > fit && (
              <Button
                data-variant="plain"
                onPress={() => setFirst(from + fit < below.length ? from + fit : 0)}
              >
                more rows
              </Button>
            ),
          )}
        />
        <Rows ref={measure} style={{ "--row": `${room.height}px` } as React.CSSProperties}>
          {seen.map((one, n) => (
            <BuskRowLine
              key={one.id}
              row={one}
              rows={page.rows}
              clashes={clashes}
              aspect={aspect}
              width={width}
              pages={pages}
              chosen={one.id === chosen.id}
              onChoose={setRow}
              letters={letters}
              number={n < 10 ? String((n + 1) % 10) : ""}
            />
          ))}
        </Rows>
        <SpecialsRow width={width} onEdit={setSpecial} />
        <FlashBar row={chosen} top={top} />
      </Main>
      {special !== undefined ? (
        <Side aria-label="A special" data-whole>
          <SpecialEditor
            key={special ?? "new"}
            special={specials.find((one) => one.id === special) ?? null}
            onOpen={setSpecial}
            onClose={() => setSpecial(undefined)}
          />
        </Side>
      ) : (
        <Side aria-label="Over all rows">
          <Tempos />
          <NextChange />
          <TwoColours rows={page.rows} />
          <WavesOfAll />
          <WaysHome row={chosen} />
        </Side>
      )}
    </Frame>
  );
}
