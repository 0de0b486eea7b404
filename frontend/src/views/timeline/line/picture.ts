import type { Timeline, TimelineEvent } from "../../../api/timelines";
import type { Row } from "../rows";
import { beatLines, xOf, type Span } from "../scale";

/** Colours of the theme as it is now. */
export interface Inks {
  ink: string;
  raised: string;
  line: string;
  edge: string;
  quiet: string;
  bone: string;
  onBone: string;
}

export function inksOf(element: Element): Inks {
  const style = getComputedStyle(element);
  const of = (name: string) => style.getPropertyValue(name).trim();
  return {
    ink: of("--ink"),
    raised: of("--raised"),
    line: of("--line"),
    edge: of("--edge"),
    quiet: of("--quiet"),
    bone: of("--bone"),
    onBone: of("--on-bone"),
  };
}

/** Something that is dragged: where its events are meanwhile. */
export interface Dragging {
  ids: ReadonlySet<number>;
  by: number;
  value: number | null;
  length: number;
}

/** A part or a bar line that is dragged: where it is meanwhile. */
export type Shaped =
  { kind: "part"; id: number; at: number; length: number } | { kind: "bar"; bar: number; at: number };

export interface Picture {
  song: Timeline;
  rows: Row[];
  events: Map<number, TimelineEvent[]>;
  span: Span;
  width: number;
  scrolled: number;
  height: number;
  chosen: ReadonlySet<number>;
  dragging: Dragging | null;
  box: { x0: number; y0: number; x1: number; y1: number } | null;
  looped: [number, number] | null;
  part: number | null;
  inks: Inks;
  /** Whether parts and bars are moved now, and the one that is. */
  shapes: boolean;
  shaped: Shaped | null;
}

export const WORDS = '13px "Atkinson Hyperlegible Next Variable", sans-serif';
export const NUMBERS = '12px "Atkinson Hyperlegible Mono Variable", monospace';

/** Words that end where there is no more room. */
export function clipped(context: CanvasRenderingContext2D, text: string, x: number, y: number, room: number) {
  if (room < 10) return;
  context.save();
  context.beginPath();
  context.rect(Math.max(x, 0) - 1, y - 12, room + Math.min(x, 0), 24);
  context.clip();
  context.fillText(text, Math.max(x, 4), y);
  context.restore();
}

/** Every how many bars a line is drawn, so that they can be told apart, and whether beats between them are. */
export function linesOf({ song, span, width }: Picture): { every: number; inBar: number } {
  const inBar = song.document.grid?.in_bar ?? 4;
  const barPx = song.bars.length > 1 ? xOf(span.from + song.bars[1]! - song.bars[0]!, span, width) : width;
  const every = Math.max(1, 2 ** Math.ceil(Math.log2(Math.max(14 / Math.max(barPx, 0.01), 0.01))));
  return { every, inBar: barPx / inBar > 10 ? inBar : 1 };
}

export function paintBeats(context: CanvasRenderingContext2D, picture: Picture, top: number, bottom: number) {
  const { song, span, width, inks } = picture;
  const { every, inBar } = linesOf(picture);
  for (const { p, bar, beat } of beatLines(song.bars, inBar, span)) {
    if (bar % every) continue;
    context.globalAlpha = beat === 0 ? (bar % (4 * every) === 0 ? 1 : 0.55) : 0.25;
    context.fillStyle = inks.line;
    context.fillRect(Math.round(xOf(p, span, width)), top, 1, bottom - top);
  }
  context.globalAlpha = 1;
}
