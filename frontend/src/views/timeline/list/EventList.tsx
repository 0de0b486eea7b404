import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef } from "react";
import styled from "styled-components";

import type { Timeline } from "../../../api/timelines";
import { onEveryFrame } from "../../../live/loop";
import { line, positionNow, useLine } from "../line";
import { positionText } from "../scale";

const Scrolls = styled.div`
  overflow-y: auto;
  min-height: 0;
  outline: none;
`;
const Line = styled.div`
  position: absolute;
  left: 0;
  right: 0;
  height: 32px;
  display: grid;
  grid-template-columns: 76px minmax(56px, auto) minmax(0, 1fr);
  gap: 10px;
  align-items: center;
  padding: 0 12px 0 10px;
  border-left: 2px solid transparent;
  cursor: pointer;
  .at,
  .what {
    font: 14px var(--numbers);
  }
  .what {
    white-space: nowrap;
  }
  .words {
    color: var(--quiet);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  &:hover {
    background: var(--raised);
  }
  &[data-now] {
    border-left-color: var(--bone);
  }
  &[aria-selected="true"] {
    background: var(--bone);
    color: var(--on-bone);
  }
  &[aria-selected="true"] .words {
    color: var(--on-bone);
  }
  &[data-gone] .what,
  &[data-gone] .words {
    color: var(--quiet);
    text-decoration: line-through;
  }
`;
const ROW_PX = 32;

/** The same events as a list: what is chosen here is chosen on the line. */
export function EventList({ song }: { song: Timeline }) {
  const chosen = useLine((state) => state.chosen);
  const element = useRef<HTMLDivElement>(null);
  const last = useRef<number | null>(null);
  const { events } = song;
  const rate = song.document.rate ?? "25";
  const names = useMemo(() => new Map(song.tracks.map((one) => [one.id, one.document.name])), [song.tracks]);
  // eslint-disable-next-line react-hooks/incompatible-library -- it is not memoised, and need not be
  const rows = useVirtualizer({
    count: events.length,
    getScrollElement: () => element.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
  });

  useEffect(() => {
    const [only] = chosen.size === 1 ? chosen : [];
    const place = events.findIndex((one) => one.id === only);
    if (place >= 0 && only !== last.current) rows.scrollToIndex(place, { align: "auto" });
    last.current = only ?? null;
  }, [chosen, events, rows]);

  useEffect(() => {
    let before: Element | null = null;
    return onEveryFrame(() => {
      const p = positionNow(song.id, song.document.length_s ?? 0);
      const place = p === null ? -1 : events.findLastIndex((one) => one.at <= p + 1e-6);
      const now = element.current?.querySelector(`[data-place="${place}"]`) ?? null;
      if (now === before) return;
      before?.removeAttribute("data-now");
      now?.setAttribute("data-now", "");
      before = now;
    });
  }, [song, events]);

  function press(event: React.MouseEvent, place: number) {
    const id = events[place]!.id;
    if (event.ctrlKey || event.metaKey) return line.toggle(id);
    if (event.shiftKey && last.current !== null) {
      const from = events.findIndex((one) => one.id === last.current);
      const [low, high] = [Math.min(from, place), Math.max(from, place)];
      return line.choose(events.slice(Math.max(low, 0), high + 1).map((one) => one.id));
    }
    last.current = id;
    line.choose([id]);
  }
  return (
    <Scrolls
      ref={element}
      data-stays=""
      role="listbox"
      aria-label="Events"
      aria-multiselectable="true"
      tabIndex={0}
    >
      <div style={{ height: rows.getTotalSize(), position: "relative" }}>
        {rows.getVirtualItems().map((row) => {
          const event = events[row.index]!;
          return (
            <Line
              key={event.id}
              role="option"
              data-place={row.index}
              data-gone={event.gone || undefined}
              aria-selected={chosen.has(event.id)}
              style={{ transform: `translateY(${row.start}px)` }}
              onClick={(pressed) => press(pressed, row.index)}
              title={event.gone ? "What it is on is gone: it does nothing" : names.get(event.track_id)}
            >
              <span className="at">{positionText(event.at, rate)}</span>
              <span className="what">{event.what}</span>
              <span className="words">{event.words}</span>
            </Line>
          );
        })}
      </div>
    </Scrolls>
  );
}
