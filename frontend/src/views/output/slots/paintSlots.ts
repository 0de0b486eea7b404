import { differing, isFound, shown, UNUSED, type Format, type Layout } from "./places";

export interface Look {
  bone: string;
  quiet: string;
  line: string;
}
export interface SlotsShown {
  layout: Layout;
  format: Format;
  words: string;
  chosen: number;
  /** Slots that are held by hand. */
  held: ReadonlySet<number>;
  /** What a node says that it got; null: it is not asked. */
  got: ArrayLike<number> | null;
  /** Frames sent in the last seconds, the newest last. */
  sent: readonly Uint8Array[];
}
const SMALL = '12px "Atkinson Hyperlegible Next Variable", sans-serif';
const VALUE = '14px "Atkinson Hyperlegible Mono Variable", monospace';
const NUMBER = '12px "Atkinson Hyperlegible Mono Variable", monospace';
const NARROW_PX = 20;
const NUMBERED_PX = 34;
/** Room for what a node says, above the value. */
const DIFFERENCE_PX = 42;

/** Draw the slots of a universe. */
export function paintSlots(context: CanvasRenderingContext2D, look: Look, now: SlotsShown, width: number) {
  const { layout } = now;
  const slots = now.sent.at(-1);
  const differs = now.got ? differing(now.sent, now.got) : null;
  context.clearRect(0, 0, width, layout.height);
  context.textBaseline = "alphabetic";
  for (const heading of layout.headings) {
    context.globalAlpha = isFound(heading.fixture, now.words) ? 1 : 0.3;
    context.fillStyle = look.bone;
    context.textAlign = "left";
    context.font = `600 ${SMALL}`;
    context.fillText(heading.text, 1, heading.y + 17, width);
  }
  const { cellWidth: cell, cellHeight: row } = layout;
  for (const { slot, x, y, name, fixture } of layout.cells) {
    const value = slots?.[slot - 1] ?? 0;
    const found = isFound(fixture, now.words);
    const idle = name === UNUSED;
    const held = now.held.has(slot);
    context.globalAlpha = 1;
    if (held || slot === now.chosen) {
      context.fillStyle = context.strokeStyle = look.bone;
      if (held) context.fillRect(x, y + 1, cell - 3, row - 2);
      else context.strokeRect(x + 0.5, y + 1.5, cell - 4, row - 4);
    }
    context.globalAlpha = !found ? 0.15 : fixture ? 0.45 : 0.12;
    context.fillStyle = look.bone;
    context.fillRect(x, y + row - 4, (cell - 3) * (value / 255), 3);
    context.globalAlpha = 1;
    context.fillStyle = look.line;
    context.fillRect(x, y + row - 1, cell - 3, 1);
    if (cell < NARROW_PX) continue;
    context.globalAlpha = found ? (idle ? 0.6 : 1) : 0.3;
    const ink = held ? "#14110e" : fixture ? look.bone : look.quiet;
    context.textAlign = "left";
    context.fillStyle = held ? ink : look.quiet;
    if (name) {
      context.font = SMALL;
      const room = differs?.has(slot - 1) ? cell - DIFFERENCE_PX : cell - 6;
      context.fillText(clipped(context, name, room), x + 2, y + 14);
      context.font = NUMBER;
      context.fillText(String(slot), x + 2, y + row - 9);
    } else if (cell >= NUMBERED_PX) {
      context.font = NUMBER;
      context.fillText(String(slot), x + 2, y + 13);
    }
    context.textAlign = "right";
    context.font = VALUE;
    context.fillStyle = ink;
    context.fillText(shown(value, now.format), x + cell - 6, y + row - 8);
    if (differs?.has(slot - 1)) markDifference(context, look, x, y, cell, row, now, slot);
  }
  context.globalAlpha = 1;
}

/** A dashed box, and what the node says. */
function markDifference(
  context: CanvasRenderingContext2D,
  look: Look,
  x: number,
  y: number,
  cell: number,
  row: number,
  now: SlotsShown,
  slot: number,
) {
  context.strokeStyle = look.bone;
  context.setLineDash([3, 2]);
  context.strokeRect(x + 0.5, y + 0.5, cell - 4, row - 2);
  context.setLineDash([]);
  context.font = NUMBER;
  context.fillStyle = look.bone;
  context.fillText(`≠${shown(now.got![slot - 1]!, now.format)}`, x + cell - 6, y + 13);
}

const widths = new Map<string, string>();
const MOST_KEPT = 5000;
/** A text that fits into a width, with a mark where it was cut. */
function clipped(context: CanvasRenderingContext2D, text: string, width: number): string {
  const key = `${Math.round(width)} ${text}`;
  const known = widths.get(key);
  if (known !== undefined) return known;
  let cut = text;
  while (cut.length > 1 && context.measureText(cut === text ? cut : `${cut}…`).width > width)
    cut = cut.slice(0, -1);
  if (widths.size > MOST_KEPT) widths.clear();
  const fitting = cut === text ? text : `${cut}…`;
  widths.set(key, fitting);
  return fitting;
}
