import { useRef, type MouseEvent, type PointerEvent } from "react";

import type { TimelineEvent } from "../../../api/timelines";
import { useTimelineEdits, type Timeline } from "../../../api/timelines";
import { wake } from "../../../live/loop";
import { frameS } from "../../../live/timecode";
import { line, useLine } from "../line";
import { valueOf } from "../rows";
import { positionAt, snapped } from "../scale";
import { eventAt, levelOf } from "./paintTracks";
import { useNewEvent } from "./newEvent";
import type { Dragging, Picture } from "./picture";

interface Drag {
  kind: "events" | "end" | "box";
  event: TimelineEvent | null;
  x: number;
  y: number;
  moved: boolean;
}
const STARTS_PX = 3;

/** What a pointer does over the tracks: choose, move, lengthen, and choose by a box. The picture is what is seen now. */
export function useLinePointer(
  song: Timeline,
  picture: () => Picture | null,
  drawn: (now: Partial<Picture>) => void,
) {
  const edits = useTimelineEdits(song.id);
  const putEvent = useNewEvent(song);
  const drag = useRef<Drag | null>(null);
  const dragging = useRef<Dragging | null>(null);

  const show = (now: Partial<Picture>) => {
    drawn(now);
    wake();
  };
  const isLocked = (event: TimelineEvent, shown: Picture) =>
    shown.song.tracks.find((one) => one.id === event.track_id)?.document.locked ?? false;

  function down(event: PointerEvent<HTMLCanvasElement>) {
    const shown = picture();
    if (event.button || !shown) return;
    const { offsetX: x, offsetY } = event.nativeEvent;
    const y = offsetY + shown.scrolled;
    event.currentTarget.setPointerCapture(event.pointerId);
    useLine.setState({ shapes: false }); // one thing at a time
    const found = eventAt(shown, x, y);
    if (!found) {
      drag.current = { kind: "box", event: null, x, y: offsetY, moved: false };
      return;
    }
    const adds = event.shiftKey || event.ctrlKey || event.metaKey;
    if (adds) line.toggle(found.event.id);
    else if (!useLine.getState().chosen.has(found.event.id)) line.choose([found.event.id]);
    if (isLocked(found.event, shown)) return;
    drag.current = { kind: found.end ? "end" : "events", event: found.event, x, y, moved: false };
  }

  function move(event: PointerEvent<HTMLCanvasElement>) {
    const shown = picture();
    if (!shown) return;
    const { offsetX: x, offsetY } = event.nativeEvent;
    const at = drag.current;
    if (!at) {
      const under = eventAt(shown, x, offsetY + shown.scrolled);
      event.currentTarget.style.cursor = under ? (under.end ? "ew-resize" : "grab") : "default";
      return;
    }
    if (
      !at.moved &&
      Math.hypot(x - at.x, (at.kind === "box" ? offsetY : offsetY + shown.scrolled) - at.y) < STARTS_PX
    )
      return;
    at.moved = true;
    if (at.kind === "box") return show({ box: { x0: at.x, y0: at.y, x1: x, y1: offsetY } });
    const { snap } = useLine.getState();
    const s = ((x - at.x) / shown.width) * (shown.span.to - shown.span.from);
    const free = event.altKey ? "off" : snap;
    const ids = new Set([...useLine.getState().chosen].filter((one) => !lockedId(one, shown)));
    if (at.kind === "end") {
      const end = snapped(at.event!.at + at.event!.length + s, free, shown.song);
      const shortest = frameS(shown.song.document.rate ?? "25");
      const length = Math.max(end - at.event!.at, shortest) - at.event!.length;
      dragging.current = { ids: new Set([at.event!.id]), by: 0, value: null, length };
    } else {
      const by = snapped(at.event!.at + s, free, shown.song) - at.event!.at;
      const row = shown.rows.find((one) => one.track?.id === at.event!.track_id)!;
      const isLevel = row.track!.document.kind === "levels";
      const up = (at.y - (offsetY + shown.scrolled)) / (row.height - 16);
      const value =
        isLevel && ids.size === 1
          ? Math.round(Math.min(Math.max(valueOf(at.event!) + up, 0), 1) * 200) / 200
          : null;
      dragging.current = { ids, by, value, length: 0 };
    }
    show({ dragging: dragging.current });
  }
  const lockedId = (one: number, shown: Picture) => {
    const event = shown.song.events.find((other) => other.id === one);
    return !event || isLocked(event, shown);
  };

  async function up(event: PointerEvent<HTMLCanvasElement>) {
    const shown = picture();
    const at = drag.current;
    const done = dragging.current;
    drag.current = dragging.current = null;
    if (!shown || !at) return;
    const { offsetX: x, offsetY } = event.nativeEvent;
    if (at.kind === "box") {
      show({ box: null });
      if (!at.moved) {
        if (!event.shiftKey) line.choose([]);
        return;
      }
      const inside = boxed(shown, at, x, offsetY);
      line.choose(event.shiftKey ? [...useLine.getState().chosen, ...inside] : inside);
      return;
    }
    if (!at.moved || !done) return;
    const changes = shown.song.events
      .filter((one) => done.ids.has(one.id))
      .map((one) => ({
        id: one.id,
        at: Math.min(Math.max(one.at + done.by, 0), shown.song.document.length_s ?? 0),
        length: one.length + done.length,
        ...(done.value !== null ? { document: { value: done.value } } : {}),
      }));
    const count = changes.length === 1 ? "1 event" : `${changes.length} events`;
    await edits.changeEvents(changes, at.kind === "end" ? "Change a length" : `Move ${count}`);
    show({ dragging: null });
  }

  /** A new event where there is none. */
  function twice(event: MouseEvent<HTMLCanvasElement>) {
    const shown = picture();
    if (!shown) return;
    const { offsetX: x, offsetY } = event.nativeEvent;
    const y = offsetY + shown.scrolled;
    const row = shown.rows.find((one) => y >= one.top && y < one.top + one.height);
    if (!row?.track || eventAt(shown, x, y)) return;
    const free = event.altKey ? "off" : useLine.getState().snap;
    const at = Math.max(snapped(positionAt(x, shown.span, shown.width), free, song), 0);
    putEvent(row.track, at, levelOf(row, y));
  }

  /** Events within a box, on the tracks that it touches. */
  function boxed(shown: Picture, at: Drag, x: number, y: number): number[] {
    const [from, to] = [Math.min(at.x, x), Math.max(at.x, x)].map((one) =>
      positionAt(one, shown.span, shown.width),
    );
    const [top, bottom] = [Math.min(at.y, y) + shown.scrolled, Math.max(at.y, y) + shown.scrolled];
    return shown.rows
      .filter((row) => row.track && row.top < bottom! && row.top + row.height > top!)
      .flatMap((row) => shown.events.get(row.track!.id) ?? [])
      .filter((one) => one.at >= from! && one.at <= to!)
      .map((one) => one.id);
  }
  return { down, move, twice, up: (event: PointerEvent<HTMLCanvasElement>) => void up(event) };
}
