import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef } from "react";
import styled from "styled-components";

import type { CueList, Told } from "../../../api/cues";
import { desk } from "../../../state";
import { useSize } from "../../../ui/useSize";
import { chained, LANE_PX, laneCount, lanesOf, ROW_PX, scaleOf, seconds } from "../cues";
import { CueLine } from "./CueLine";
import { Textures } from "./Textures";
import { Threads } from "./Threads";

const Frame = styled.div`
  display: grid;
  grid-template-rows: 28px minmax(0, 1fr);
`;
const Head = styled.div`
  display: grid;
  grid-template-columns: var(--columns);
  align-items: center;
  color: var(--quiet);
  font-size: 14px;
  border-bottom: 1px solid var(--line);
  padding-right: 10px;
  > :first-child {
    padding-left: 12px;
  }
`;
const Ruler = styled.div`
  position: relative;
  height: 20px;
  font-family: var(--numbers);
  span {
    position: absolute;
    transform: translateX(-50%);
    white-space: nowrap;
  }
  span:first-child {
    transform: none;
  }
`;
const Rows = styled.div`
  overflow: auto;
  position: relative;
  outline-offset: -2px;
  > div {
    position: relative;
  }
`;
const NUMBER_PX = 54;
const STARTS_PX = 104;
const LEAST_BARS_PX = 150;

interface Props {
  list: CueList;
  told: Told | null;
  chosen: number | null;
}

/** The cues of a list: times as bars on one scale, effects as threads. */
export function CueTable({ list, told, chosen }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [{ width }, measure] = useSize();
  const { rows, threads } = list;
  const lanes = lanesOf(threads, rows.length);
  const threadsPx = threads.length ? laneCount(lanes) * LANE_PX + 14 : 0;
  const scale = scaleOf(list.longest_s);
  const left = Math.max(0, (width || 560) - NUMBER_PX - STARTS_PX - threadsPx - 10);
  const barsPx = Math.max(LEAST_BARS_PX, Math.round(left * 0.46));
  const columns = `${NUMBER_PX}px minmax(0, 1fr) ${STARTS_PX}px ${barsPx}px ${threadsPx}px`;
  const links = chained(rows);
  // eslint-disable-next-line react-hooks/incompatible-library -- it is not memoised, and need not be
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 6,
  });
  const at = rows.findIndex((row) => row.id === (told?.cue ?? chosen));
  const scroll = useRef(virtual.scrollToIndex);
  useEffect(() => {
    if (at >= 0) scroll.current(at, { align: "auto" });
  }, [at]);
  function onKey(event: React.KeyboardEvent) {
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[event.key];
    if (step === undefined || event.target !== event.currentTarget) return;
    event.preventDefault();
    const now = rows.findIndex((row) => row.id === chosen);
    const to = Math.min(Math.max(now + step, 0), rows.length - 1);
    desk.openList(list.id, rows[to]!.id);
    virtual.scrollToIndex(to, { align: "auto" });
  }
  return (
    <Frame ref={measure} style={{ "--columns": columns } as React.CSSProperties}>
      <Head aria-hidden="true">
        <span>Cue</span>
        <span>Name</span>
        <span>Starts</span>
        <Ruler>
          {scale.ticks.map((tick) => (
            <span key={tick} style={{ left: `${(tick / scale.end) * 100}%` }}>
              {tick === 0 ? "0 s" : seconds(tick)}
            </span>
          ))}
        </Ruler>
        <span style={{ paddingLeft: 8 }}>{threadsPx >= 60 ? "Effects" : ""}</span>
      </Head>
      <Rows ref={box} tabIndex={0} role="group" aria-label={`Cues of ${list.name}`} onKeyDown={onKey}>
        <Textures />
        <div style={{ height: virtual.getTotalSize() }}>
          <div role="list" aria-label="Cues">
            {virtual.getVirtualItems().map((item) => {
              const row = rows[item.index]!;
              return (
                <CueLine
                  key={row.id}
                  list={list}
                  row={row}
                  top={item.start}
                  told={told}
                  chosen={row.id === chosen}
                  linked={links[item.index]!}
                  scale={scale}
                  barsPx={barsPx}
                />
              );
            })}
          </div>
          {threads.length > 0 && <Threads list={list} lanes={lanes} right={threadsPx} />}
        </div>
      </Rows>
    </Frame>
  );
}
