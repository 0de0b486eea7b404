import type { Timeline } from "../../api/timelines";
import { frameS, rateOf } from "../../live/timecode";

/** What of a song is seen: from a position to another, s. */
export interface Span {
  from: number;
  to: number;
}
export type Snap = "beat" | "bar" | "frame" | "off";
export const SNAPS: { id: Snap; text: string }[] = [
  { id: "beat", text: "Snap: beat" },
  { id: "bar", text: "Snap: bar" },
  { id: "frame", text: "Snap: frame" },
  { id: "off", text: "Snap: off" },
];

export const xOf = (p: number, span: Span, width: number) =>
  ((p - span.from) / (span.to - span.from)) * width;
export const positionAt = (x: number, span: Span, width: number) =>
  span.from + (x / Math.max(width, 1)) * (span.to - span.from);

/** Zoomed by a factor (below 1: closer) around a position, within the song; never closer than a few frames. */
export function zoomed(span: Span, factor: number, around: number, length: number, rate: string): Span {
  const now = span.to - span.from;
  const wide = Math.min(Math.max(now * factor, 8 * frameS(rate)), Math.max(length, 1));
  const from = around - ((around - span.from) / now) * wide;
  return within({ from, to: from + wide }, length);
}

/** Moved so that it lies within the song. */
export function within(span: Span, length: number): Span {
  const wide = Math.min(span.to - span.from, Math.max(length, 1));
  const from = Math.min(Math.max(span.from, 0), Math.max(length - wide, 0));
  return { from, to: from + wide };
}

/** A position as it is read: minutes, seconds and frames. */
export function positionText(p: number, rate: string): string {
  const [counted, real] = rateOf(rate);
  const frames = Math.floor(p * real + 1e-6);
  const seconds = Math.floor(frames / counted);
  const two = (value: number) => String(value).padStart(2, "0");
  return `${Math.floor(seconds / 60)}:${two(seconds % 60)}.${two(frames % counted)}`;
}

/** A position as it is typed, `1:04.18` or `64.18` in seconds and frames; null: it is none. */
export function readPosition(text: string, rate: string): number | null {
  const found = /^\s*(?:(\d+):)?(\d{1,5})(?:[.:](\d{1,2}))?\s*$/.exec(text);
  const [counted, real] = rateOf(rate);
  if (!found) return null;
  const [minutes, seconds, frames] = [Number(found[1] ?? 0), Number(found[2]), Number(found[3] ?? 0)];
  if ((found[1] !== undefined && seconds > 59) || frames >= counted) return null;
  return ((minutes * 60 + seconds) * counted + frames) / real;
}

/** Where beats are, from the lines of bars: those of a bar lie evenly in it. */
export function beatLines(
  bars: number[],
  inBar: number,
  span: Span,
): { p: number; bar: number; beat: number }[] {
  const found: { p: number; bar: number; beat: number }[] = [];
  for (let n = 0; n < bars.length; n++) {
    const begin = bars[n]!;
    const bar = bars[n + 1] !== undefined ? bars[n + 1]! - begin : begin - (bars[n - 1] ?? begin - 2);
    if (begin + bar < span.from || begin > span.to) continue;
    for (let beat = 0; beat < inBar; beat++) {
      const p = begin + (bar * beat) / inBar;
      if (p >= span.from && p <= span.to) found.push({ p, bar: n, beat });
    }
  }
  return found;
}

/** Bar and beat at a position, both from 1 on; what lies before the first line has none. */
export function barAndBeat(p: number, song: Timeline): [number, number] | null {
  const { bars, first_bar } = song;
  const inBar = song.document.grid?.in_bar ?? 4;
  let n = bars.findIndex((one) => one > p + 1e-6) - 1;
  if (n === -2) n = bars.length - 1;
  if (n < 0) return null;
  const begin = bars[n]!;
  const long = bars[n + 1] !== undefined ? bars[n + 1]! - begin : begin - (bars[n - 1] ?? begin - 2);
  return [first_bar + n, Math.floor(((p - begin) / long) * inBar + 1e-6) + 1];
}

/** A position brought to the nearest line. */
export function snapped(p: number, snap: Snap, song: Timeline): number {
  const frame = frameS(song.document.rate ?? "25");
  if (snap === "off") return p;
  if (snap === "frame") return Math.round(p / frame) * frame;
  const inBar = song.document.grid?.in_bar ?? 4;
  const lines = beatLines(song.bars, inBar, { from: p - 8, to: p + 8 }).filter(
    (one) => snap === "beat" || one.beat === 0,
  );
  return lines.reduce(
    (best, one) => (Math.abs(one.p - p) < Math.abs(best - p) ? one.p : best),
    lines[0]?.p ?? p,
  );
}

/** Which outline is fine enough: at least one block for each pixel, or the finest there is. */
export function levelFor(blockS: number[], secondsInPixel: number): number {
  let level = 0;
  blockS.forEach((block, n) => {
    if (block <= secondsInPixel) level = n;
  });
  return level;
}

const STEPS = [0.04, 0.1, 0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800];
/** Where times are written along the top: so far apart that they can be read. */
export function ticks(span: Span, width: number, apartPx = 84): number[] {
  const step = STEPS.find((one) => (one / (span.to - span.from)) * width >= apartPx) ?? 3600;
  const first = Math.ceil(span.from / step);
  const count = Math.floor(span.to / step) - first + 1;
  return Array.from({ length: Math.max(count, 0) }, (_, n) => (first + n) * step);
}
