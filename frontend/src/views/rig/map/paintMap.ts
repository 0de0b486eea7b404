import { LABEL_PX, NOTE_PX, ROW_PX, SLOTS, slotX, type Block, type Strip } from "./blocks";

/** A block that a hand carries: where it would begin, and how far into it the hand has hold of it. */
export interface Carried {
  block: Block;
  grip: number;
  row: number;
  first: number;
}
interface Look {
  width: number;
  selected: ReadonlySet<number>;
  overlapping: ReadonlySet<number>;
  carried: Carried | null;
}

const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
const NUMBER = '12px "Atkinson Hyperlegible Mono Variable", monospace';
const WORD = '13px "Atkinson Hyperlegible Next Variable", sans-serif';
const INSET = 4;

/** All strips: what is chosen in bone, what overlaps hatched, gaps dark. */
export function paintMap(context: CanvasRenderingContext2D, all: readonly Strip[], look: Look) {
  const ink = {
    line: colour("--line"),
    edge: colour("--edge"),
    raised: colour("--raised"),
    quiet: colour("--quiet"),
    bone: colour("--bone"),
    onBone: colour("--on-bone"),
    ink: colour("--ink"),
  };
  const { width } = look;
  context.clearRect(0, 0, width, all.length * ROW_PX);
  const hatch = hatching(context, ink.bone, ink.ink);
  all.forEach((strip, row) => {
    const top = row * ROW_PX + INSET;
    const high = ROW_PX - 2 * INSET;
    context.textBaseline = "middle";
    context.textAlign = "left";
    context.font = NUMBER;
    context.fillStyle = ink.quiet;
    context.fillText(String(strip.universe), 2, top + high / 2);
    context.strokeStyle = ink.line;
    context.lineWidth = 1;
    context.strokeRect(LABEL_PX + 0.5, top + 0.5, width - LABEL_PX - NOTE_PX - 1, high - 1);
    for (const block of strip.blocks) {
      const [left, right] = [
        Math.round(slotX(block.first, width)),
        Math.round(slotX(block.first + block.size, width)),
      ];
      const chosen = look.selected.has(block.number);
      const odd = look.overlapping.has(block.number);
      context.fillStyle = odd ? hatch : chosen ? ink.bone : ink.raised;
      context.fillRect(left, top, right - left, high);
      context.strokeStyle = odd ? ink.bone : chosen ? ink.ink : ink.edge;
      context.strokeRect(left + 0.5, top + 0.5, Math.max(right - left - 1, 1), high - 1);
      label(
        context,
        block.number,
        left,
        right,
        top + high / 2,
        chosen && !odd ? ink.onBone : ink.bone,
        odd ? ink.ink : null,
      );
    }
    context.font = WORD;
    context.textAlign = "left";
    const odd = [
      ...new Set(strip.blocks.filter(({ number }) => look.overlapping.has(number)).map((one) => one.number)),
    ];
    context.fillStyle = odd.length ? ink.bone : ink.quiet;
    const note = odd.length ? "overlap" : strip.blocks.length ? `${strip.free} free` : "nothing";
    context.fillText(note, width - NOTE_PX + 8, top + high / 2);
  });
  if (look.carried && look.carried.row >= 0) {
    const { row, first, block } = look.carried;
    const [left, right] = [slotX(first, width), slotX(Math.min(first + block.size, SLOTS), width)];
    const top = row * ROW_PX + 1;
    context.fillStyle = ink.bone;
    context.fillRect(left, top, right - left, ROW_PX - 2);
    context.font = NUMBER;
    context.fillStyle = ink.onBone;
    context.textAlign = "left";
    context.fillText(
      `${all[row]!.universe}.${first + 1}`,
      Math.min(left + 3, width - 70),
      top + ROW_PX / 2 - 1,
    );
  }
}

/** A number in its block: whole, or left away where there is no room. */
function label(
  context: CanvasRenderingContext2D,
  number: number,
  left: number,
  right: number,
  middle: number,
  on: string,
  behind: string | null,
) {
  const text = String(number);
  context.font = NUMBER;
  const wide = context.measureText(text).width;
  if (wide + 6 > right - left) return;
  if (behind) {
    context.fillStyle = behind;
    context.fillRect(left + 2, middle - 8, wide + 4, 16);
  }
  context.fillStyle = on;
  context.textAlign = "left";
  context.fillText(text, left + 4, middle);
}

function hatching(context: CanvasRenderingContext2D, light: string, dark: string): CanvasPattern | string {
  const tile = document.createElement("canvas");
  tile.width = tile.height = 8;
  const own = tile.getContext("2d");
  if (!own) return light;
  own.fillStyle = dark;
  own.fillRect(0, 0, 8, 8);
  own.strokeStyle = light;
  own.lineWidth = 2;
  own.beginPath();
  for (const shift of [-8, 0, 8]) {
    own.moveTo(shift, 8);
    own.lineTo(shift + 8, 0);
  }
  own.stroke();
  return context.createPattern(tile, "repeat") ?? light;
}
