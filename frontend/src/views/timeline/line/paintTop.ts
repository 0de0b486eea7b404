import type { Marker } from "../../../api/timelines";
import { MARKERS_PX, RULER_PX, SOUND_PX, TOP_PX } from "../rows";
import { positionText, ticks, xOf } from "../scale";
import { clipped, linesOf, NUMBERS, paintBeats, WORDS, type Picture } from "./picture";

/** The ruler, the parts of the song and its sound: what stays above the tracks. */
export function paintTop(
  context: CanvasRenderingContext2D,
  picture: Picture,
  outline: { data: Int8Array; blockS: number } | null,
) {
  const { song, span, width, inks, looped, part, shapes, shaped } = picture;
  context.clearRect(0, 0, width, TOP_PX);
  context.font = NUMBERS;
  context.textBaseline = "middle";
  for (const p of ticks(span, width)) {
    const x = Math.round(xOf(p, span, width)) + 0.5;
    context.fillStyle = inks.line;
    context.fillRect(x, RULER_PX - 6, 1, 6);
    context.fillStyle = inks.quiet;
    context.fillText(positionText(p, song.document.rate ?? "25"), x + 4, RULER_PX / 2);
  }
  if (looped) {
    const x = xOf(looped[0], span, width);
    context.fillStyle = inks.bone;
    context.fillRect(x, RULER_PX - 3, Math.max(xOf(looped[1], span, width) - x, 2), 3);
  }
  context.font = WORDS;
  for (const marker of song.markers) {
    const moved = shaped?.kind === "part" && shaped.id === marker.id;
    const shown = moved ? { ...marker, at: shaped.at, length: shaped.length } : marker;
    paintMarker(context, picture, shown, marker.id === part);
  }
  paintBeats(context, picture, TOP_PX - SOUND_PX, TOP_PX);
  if (outline) paintSound(context, picture, outline);
  if (shapes) paintHandles(context, picture);
  context.fillStyle = inks.line;
  context.fillRect(0, TOP_PX - 1, width, 1);
}

function paintMarker(
  context: CanvasRenderingContext2D,
  { span, width, inks, shapes }: Picture,
  marker: Marker,
  current: boolean,
) {
  const x = Math.round(xOf(marker.at, span, width));
  const end = xOf(marker.at + (marker.length ?? 0), span, width);
  const wide = Math.max(end - x - 2, 2);
  if (end < 0 || x > width) return;
  context.fillStyle = current ? inks.bone : inks.raised;
  if (marker.length) context.fillRect(x, RULER_PX + 3, wide, MARKERS_PX - 4);
  context.fillStyle = marker.colour || inks.edge;
  context.fillRect(x, RULER_PX, wide, 3);
  context.fillStyle = current ? inks.onBone : inks.bone;
  if (shapes && marker.length) context.fillRect(x + wide - 3, RULER_PX + 7, 2, MARKERS_PX - 12);
  clipped(context, marker.name, x + 6, RULER_PX + MARKERS_PX / 2 + 2, marker.length ? wide - 8 : 120);
}

function paintSound(
  context: CanvasRenderingContext2D,
  { song, span, width, inks }: Picture,
  { data, blockS }: { data: Int8Array; blockS: number },
) {
  const middle = TOP_PX - SOUND_PX / 2;
  const half = SOUND_PX / 2 - 4;
  const at = song.document.sound_at ?? 0;
  const count = data.length / 2;
  context.fillStyle = inks.quiet;
  for (let x = 0; x < width; x++) {
    const from = (span.from - at + (x / width) * (span.to - span.from)) / blockS;
    const to = Math.max(from + (span.to - span.from) / width / blockS, from + 1e-9);
    const first = Math.max(Math.floor(from), 0);
    const last = Math.min(Math.max(Math.ceil(to), first + 1), count);
    if (to < 0 || first >= count) continue;
    let low = 127;
    let high = -127;
    for (let n = first; n < last; n++) {
      low = Math.min(low, data[2 * n]!);
      high = Math.max(high, data[2 * n + 1]!);
    }
    const top = middle - (high / 127) * half;
    context.fillRect(x, top, 1, Math.max(((high - low) / 127) * half, 1));
  }
}

const HANDLE_PX = 7;
const NEAR_PX = 6;
const SOUND_TOP = TOP_PX - SOUND_PX;

/** Bar lines that can be dragged, and the one that is. */
function paintHandles(context: CanvasRenderingContext2D, picture: Picture) {
  const { song, span, width, inks, shaped } = picture;
  const { every } = linesOf(picture);
  context.fillStyle = inks.bone;
  song.bars.forEach((bar, n) => {
    const isDragged = shaped?.kind === "bar" && shaped.bar === n;
    if ((n % every && !isDragged) || bar < span.from || bar > span.to) return;
    const x = Math.round(xOf(isDragged ? shaped.at : bar, span, width));
    context.fillRect(x - (HANDLE_PX - 1) / 2, SOUND_TOP, HANDLE_PX, HANDLE_PX);
    if (isDragged) context.fillRect(x, SOUND_TOP, 1, SOUND_PX);
  });
}

/** A part, its end, or a bar line. */
export type Grip = { kind: "part" | "end"; marker: Marker } | { kind: "bar"; bar: number };

/** What of the top can be dragged at a point, while parts and bars are moved. */
export function gripAt(picture: Picture, x: number, y: number): Grip | null {
  const { song, span, width } = picture;
  if (y < RULER_PX) return null;
  if (y < SOUND_TOP) {
    for (const marker of [...song.markers].reverse()) {
      const begin = xOf(marker.at, span, width);
      const end = xOf(marker.at + (marker.length ?? 0), span, width);
      if (marker.length && Math.abs(x - end) <= NEAR_PX && end - begin > 2 * NEAR_PX)
        return { kind: "end", marker };
      if (x >= begin - NEAR_PX && x <= Math.max(end, begin + (marker.length ? 0 : 60)))
        return { kind: "part", marker };
    }
    return null;
  }
  const { every } = linesOf(picture);
  let best: { bar: number; px: number } | null = null;
  song.bars.forEach((bar, n) => {
    const px = Math.abs(xOf(bar, span, width) - x);
    if (n % every === 0 && px <= NEAR_PX && (best === null || px < best.px)) best = { bar: n, px };
  });
  return best === null ? null : { kind: "bar", bar: (best as { bar: number }).bar };
}
