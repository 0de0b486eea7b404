import type { TimelineEvent } from "../../../api/timelines";
import { valueOf, type Row } from "../rows";
import { xOf, type Span } from "../scale";
import { clipped, paintBeats, WORDS, type Dragging, type Picture } from "./picture";

/** The tracks, with what is on them. */
export function paintTracks(context: CanvasRenderingContext2D, picture: Picture) {
  const { rows, width, height, scrolled, inks, events, box } = picture;
  context.clearRect(0, 0, width, height);
  context.save();
  context.translate(0, -scrolled);
  const bottom = Math.max(height + scrolled, 0);
  paintBeats(context, picture, scrolled, bottom);
  for (const row of rows) {
    if (row.top + row.height < scrolled || row.top > bottom) continue;
    context.fillStyle = inks.line;
    context.fillRect(0, row.top + row.height - 1, width, 1);
    if (row.track) {
      context.globalAlpha = row.track.document.muted ? 0.4 : 1;
      paintTrack(context, picture, row, events.get(row.track.id) ?? []);
      context.globalAlpha = 1;
    }
  }
  context.restore();
  if (box) {
    context.strokeStyle = inks.bone;
    context.setLineDash([4, 3]);
    context.strokeRect(
      Math.min(box.x0, box.x1),
      Math.min(box.y0, box.y1),
      Math.abs(box.x1 - box.x0),
      Math.abs(box.y1 - box.y0),
    );
    context.setLineDash([]);
  }
}

/** Where an event is while it may be dragged. */
export const shownAt = (event: TimelineEvent, dragging: Dragging | null) =>
  dragging?.ids.has(event.id) ? event.at + dragging.by : event.at;

/** Events in the order in which they lie while some may be dragged. */
const inOrder = (events: TimelineEvent[], dragging: Dragging | null) =>
  dragging ? [...events].sort((a, b) => shownAt(a, dragging) - shownAt(b, dragging)) : events;

function paintTrack(context: CanvasRenderingContext2D, picture: Picture, row: Row, events: TimelineEvent[]) {
  const kind = row.track!.document.kind;
  if (kind === "levels") return paintLevel(context, picture, row, events);
  const { span, width, dragging } = picture;
  const sorted = inOrder(events, dragging);
  sorted.forEach((event, n) => {
    const x = xOf(shownAt(event, dragging), span, width);
    const next = sorted[n + 1];
    const room = (next ? xOf(shownAt(next, dragging), span, width) : width) - x;
    const length = event.length + (dragging?.ids.has(event.id) ? dragging.length : 0);
    const end = xOf(shownAt(event, dragging) + Math.max(length, 0), span, width);
    if (Math.max(end, x + Math.min(room, 120)) < 0 || x > width) return;
    if (kind === "cues") paintCue(context, picture, row, event, x, room);
    else if (kind === "presses") paintPress(context, picture, row, event, x, Math.max(end - x, 3));
    else paintMessage(context, picture, row, event, x);
  });
}

function dashed(context: CanvasRenderingContext2D, gone: boolean) {
  context.setLineDash(gone ? [3, 3] : []);
}

function paintCue(
  context: CanvasRenderingContext2D,
  { inks, chosen }: Picture,
  row: Row,
  event: TimelineEvent,
  x: number,
  room: number,
) {
  const isChosen = chosen.has(event.id);
  const wide = Math.max(Math.min(room - 2, 130), 3);
  const y = row.top + 7;
  const high = row.height - 14;
  context.fillStyle = isChosen ? inks.bone : inks.raised;
  context.fillRect(x, y, wide, high);
  context.fillStyle = event.gone ? inks.quiet : inks.bone;
  context.fillRect(x, y, 2, high);
  context.font = WORDS;
  context.textBaseline = "middle";
  context.fillStyle = isChosen ? inks.onBone : event.gone ? inks.quiet : inks.bone;
  clipped(context, `${event.what} ${event.words}`, x + 6, y + high / 2, wide - 7);
  if (event.gone) {
    context.strokeStyle = inks.quiet;
    dashed(context, true);
    context.strokeRect(x + 0.5, y + 0.5, wide - 1, high - 1);
    dashed(context, false);
  }
}

function paintPress(
  context: CanvasRenderingContext2D,
  { inks, chosen }: Picture,
  row: Row,
  event: TimelineEvent,
  x: number,
  wide: number,
) {
  const y = row.top + 10;
  const high = row.height - 20;
  const isChosen = chosen.has(event.id);
  const does = (event.document as { does?: string }).does ?? "hold";
  context.strokeStyle = context.fillStyle = event.gone ? inks.quiet : inks.bone;
  if (does === "hold") {
    dashed(context, event.gone);
    if (event.gone) context.strokeRect(x + 0.5, y + 0.5, wide, high);
    else context.fillRect(x, y, wide, high);
    dashed(context, false);
  } else {
    // on: opens to the right; off: closes
    const way = does === "on" ? 9 : -9;
    context.beginPath();
    context.moveTo(x, y);
    context.lineTo(x + way, y + high / 2);
    context.lineTo(x, y + high);
    context.closePath();
    if (does === "on") context.fill();
    else context.stroke();
  }
  if (isChosen) {
    context.strokeStyle = inks.bone;
    context.strokeRect(x - 3.5, y - 3.5, Math.max(wide, 10) + 7, high + 7);
  }
}

function paintMessage(
  context: CanvasRenderingContext2D,
  { inks, chosen }: Picture,
  row: Row,
  event: TimelineEvent,
  x: number,
) {
  const y = row.top + row.height / 2;
  const half = 9;
  context.beginPath();
  context.moveTo(x, y - half);
  context.lineTo(x + half, y);
  context.lineTo(x, y + half);
  context.lineTo(x - half, y);
  context.closePath();
  context.lineWidth = 2;
  context.strokeStyle = event.gone ? inks.quiet : inks.bone;
  context.fillStyle = chosen.has(event.id) ? inks.bone : inks.ink;
  context.fill();
  context.stroke();
  context.lineWidth = 1;
}

/** How far a point of a level is above the lower edge of its track. */
export const yOfLevel = (row: Row, value: number) => row.top + row.height - 8 - value * (row.height - 16);

/** Of events in order those that are seen, and one before and one behind them: a line comes from there and goes there. */
export function seenOf<Event>(sorted: Event[], at: (event: Event) => number, span: Span): Event[] {
  const first = sorted.findIndex((one) => at(one) >= span.from);
  const behind = sorted.findIndex((one) => at(one) > span.to);
  return sorted.slice(
    Math.max((first < 0 ? sorted.length : first) - 1, 0),
    behind < 0 ? sorted.length : behind + 1,
  );
}

/** The level at a height of a track: the inverse. */
export const levelOf = (row: Row, y: number) =>
  Math.min(Math.max((row.top + row.height - 8 - y) / (row.height - 16), 0), 1);

function paintLevel(context: CanvasRenderingContext2D, picture: Picture, row: Row, events: TimelineEvent[]) {
  const { span, width, inks, chosen, dragging } = picture;
  const shown = seenOf(inOrder(events, dragging), (event) => shownAt(event, dragging), span).map((event) => {
    const moved = dragging?.ids.has(event.id);
    const value = moved && dragging?.value != null ? dragging.value : valueOf(event);
    return { event, at: shownAt(event, dragging), value };
  });
  if (!shown.length) return;
  context.strokeStyle = shown[0]!.event.gone ? inks.quiet : inks.bone;
  context.lineWidth = 1.5;
  context.beginPath();
  for (const { at, value } of shown) context.lineTo(xOf(at, span, width), yOfLevel(row, value));
  context.lineTo(width, yOfLevel(row, shown.at(-1)!.value));
  context.stroke();
  context.lineWidth = 1;
  const near = (span.to - span.from) / width;
  let last = -Infinity;
  for (const { event, at, value } of shown) {
    if (at < span.from - near * 8 || at > span.to + near * 8) continue;
    if (at - last < near * 5 && !chosen.has(event.id)) continue; // too close to be told apart
    last = at;
    const x = xOf(at, span, width);
    context.fillStyle = chosen.has(event.id) ? inks.bone : inks.ink;
    context.fillRect(x - 4, yOfLevel(row, value) - 4, 8, 8);
    context.strokeRect(x - 3.5, yOfLevel(row, value) - 3.5, 7, 7);
  }
}

/** The event under a point of the tracks (x, y without scrolling), and whether its end is. */
export function eventAt(
  picture: Picture,
  x: number,
  y: number,
): { event: TimelineEvent; end: boolean } | null {
  const row = picture.rows.find((one) => one.track && y >= one.top && y < one.top + one.height);
  if (!row?.track) return null;
  const events = picture.events.get(row.track.id) ?? [];
  const { span, width } = picture;
  const kind = row.track.document.kind;
  for (let n = events.length - 1; n >= 0; n--) {
    const event = events[n]!;
    const begin = xOf(event.at, span, width);
    if (kind === "levels") {
      if (Math.abs(x - begin) <= 8 && Math.abs(y - yOfLevel(row, valueOf(event))) <= 10)
        return { event, end: false };
      continue;
    }
    const next = events[n + 1];
    const room = (next ? xOf(next.at, span, width) : width + 200) - begin;
    const held = kind === "presses" && (event.document as { does?: string }).does === "hold";
    const end = held
      ? Math.max(xOf(event.at + event.length, span, width), begin + 3)
      : begin + (kind === "cues" ? Math.min(room, 130) : 10);
    const early = kind === "messages" ? 10 : 4;
    if (held && x >= end - 5 && x <= end + 6 && end - begin > 8) return { event, end: true };
    if (x >= begin - early && x <= end + 4) return { event, end: false };
  }
  return null;
}
