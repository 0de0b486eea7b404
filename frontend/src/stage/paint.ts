import type { Head } from "../api/rig";
import { HEAD_BYTES, type HeadsFrame } from "../live/frame";
import { STAGE } from "../theme/tokens";
import { beamEnd, beamHalf, project, type Place, type Point, type View } from "./geometry";
import { addBeam } from "./light";

export type { Head } from "../api/rig";

const REACH_M = 9;
/** How heads look on the picture: as cells of a surface, or as a lamp with a beam. */
const CELLS = new Set(["batten", "wall", "blinder", "strobe"]);

/** A place as an object, from the three numbers of the API. */
export const placeOf = (head: Pick<Head, "place">): Place => ({
  x: head.place[0],
  y: head.place[1],
  z: head.place[2],
});

/** Sizes of cells in metres, and how far apart they are; gaps of less than a pixel would be seen in some rows only. */
const CELL_M: Record<string, { x: number; y: number; apart: number }> = {
  wall: { x: 0.115, y: 0.115, apart: 0.125 },
  batten: { x: 0.08, y: 0.16, apart: 0.09 },
  other: { x: 0.26, y: 0.2, apart: 0.26 },
};

function cellSize(kind: string, view: View): Point {
  const { x, y, apart } = CELL_M[kind] ?? CELL_M.other!;
  const seen = (metres: number, scale: number) => (metres < apart ? apart : metres) * scale;
  return { x: Math.max(seen(x, view.scaleX), 2), y: Math.max(seen(y, view.scaleY), 2.5) };
}

/** Whole pixels between neighbouring cells: the same for all of a kind, so that the lines between them are even. */
function cellGap(kind: string, view: View, scale: number): Point {
  const { x, y, apart } = CELL_M[kind] ?? CELL_M.other!;
  const gap = (metres: number, ofView: number) => Math.round(Math.max(apart - metres, 0) * ofView * scale);
  return { x: gap(x, view.scaleX), y: gap(y, view.scaleY) };
}

/** The picture of the stage in its own pixels: the ground, and where on it the cells of a rig are. */
export interface Ground {
  image: ImageData;
  pixels: Uint32Array;
  dark: number;
  scale: number;
  cells: { index: number; x: number; y: number; width: number; height: number }[];
  /** Heads that send beams: their numbers and places. */
  beams: { index: number; place: Place }[];
}

/** scale: pixels of the picture per CSS pixel. */
export function groundOf(
  view: View,
  heads: Head[],
  size: { width: number; height: number },
  scale: number,
): Ground {
  const image = new ImageData(size.width, size.height);
  const ground = parseInt(STAGE.ground.slice(1), 16);
  const within = (value: number, most: number) => Math.min(Math.max(Math.round(value * scale), 0), most);
  const cells = heads.flatMap((head, index) => {
    if (!CELLS.has(head.kind)) return [];
    const at = project(view, placeOf(head));
    const half = cellSize(head.kind, view);
    const gap = cellGap(head.kind, view, scale);
    const [x, y] = [within(at.x - half.x / 2, size.width), within(at.y - half.y / 2, size.height)];
    const width = within(at.x + half.x / 2, size.width) - x - gap.x;
    const height = within(at.y + half.y / 2, size.height) - y - gap.y;
    return [{ index, x, y, width: Math.max(width, 1), height: Math.max(height, 1) }];
  });
  const dark = pixel(ground >> 16, (ground >> 8) & 255, ground & 255);
  const beams = heads.flatMap((head, index) =>
    head.kind === "haze" || head.kind === "fan" || head.leads || CELLS.has(head.kind)
      ? []
      : [{ index, place: placeOf(head) }],
  );
  return { image, pixels: new Uint32Array(image.data.buffer), dark, scale, cells, beams };
}

/** A colour as a pixel of an `ImageData` seen as 32-bit numbers (all machines that browsers run on put red first). */
const pixel = (red: number, green: number, blue: number) =>
  ((255 << 24) | (blue << 16) | (green << 8) | red) >>> 0;

/** A frame that is being painted, and the beam that comes next. */
export interface Painting {
  frame: HeadsFrame;
  next: number;
}
const BEAMS_AT_ONCE = 16;

/** Go on painting light into the picture of the ground, as its frame says: cells, and beams over them; it covers all that was
 * there. Whether it is whole: of a large rig that takes several turns, and nothing else waits for it meanwhile. */
export function paintLight(ground: Ground, view: View, painting: Painting, hasTime: () => boolean): boolean {
  const { frame } = painting;
  if (painting.next === 0) paintCells(ground, frame);
  for (let first = painting.next; painting.next < ground.beams.length; painting.next++) {
    if (painting.next - first >= BEAMS_AT_ONCE) {
      if (!hasTime()) return false;
      first = painting.next;
    }
    const { index, place } = ground.beams[painting.next]!;
    if (index >= frame.count) continue;
    const drives = drivesOf(frame, index);
    if (Math.max(drives[0], drives[1], drives[2]) < DARK) continue;
    const beam = beamOf(view, place, lensOf(frame, index), ground.scale);
    addBeam(ground.image.data, ground.image.width, ground.image.height, { ...beam, drives });
  }
  return true;
}

function paintCells(ground: Ground, frame: HeadsFrame) {
  const { image, pixels } = ground;
  pixels.fill(ground.dark);
  for (const { index, x, y, width, height } of ground.cells) {
    if (index >= frame.count) continue;
    const at = index * HEAD_BYTES;
    const colour = pixel(
      frame.heads.getUint8(at),
      frame.heads.getUint8(at + 1),
      frame.heads.getUint8(at + 2),
    );
    for (let row = y; row < y + height; row++)
      pixels.fill(colour, row * image.width + x, row * image.width + x + width);
  }
}

const DARK = 3;
const LENS_PX = 2.5;

/** What is seen of a head, 0 to 255 of red, green and blue. */
export function drivesOf(frame: HeadsFrame, index: number): [number, number, number] {
  const at = index * HEAD_BYTES;
  return [frame.heads.getUint8(at), frame.heads.getUint8(at + 1), frame.heads.getUint8(at + 2)];
}

/** Where a head points and how wide it is open, in degrees. */
export function lensOf({ heads }: HeadsFrame, index: number) {
  const at = index * HEAD_BYTES;
  const unit = (byte: number) => heads.getInt16(at + byte, true) / 32767;
  return { zoom: heads.getUint16(at + 4, true) / 100, direction: { x: unit(6), y: unit(8), z: unit(10) } };
}

/** A beam on the picture, for a lens at a place. */
function beamOf(view: View, place: Place, lens: ReturnType<typeof lensOf>, scale: number) {
  const end = beamEnd(place, lens.direction, REACH_M);
  const scaled = ({ x, y }: Point) => ({ x: x * scale, y: y * scale });
  return {
    from: scaled(project(view, place)),
    to: scaled(project(view, end)),
    lens: LENS_PX * scale,
    half: (beamHalf(view, place, end, lens.zoom) + LENS_PX) * scale,
  };
}

/** Trusses and the floor: thin lines where several fixtures hang at one height. */
export function paintWires(context: CanvasRenderingContext2D, view: View, heads: Head[], width: number) {
  context.strokeStyle = STAGE.wire;
  context.lineWidth = 1;
  const rows = new Map<string, Point[]>();
  for (const head of heads) {
    if (head.kind !== "spot" && head.kind !== "wash" && head.kind !== "profile") continue;
    const key = `${head.place[1]} ${head.place[2]}`;
    rows.set(key, [...(rows.get(key) ?? []), project(view, placeOf(head))]);
  }
  context.beginPath();
  for (const points of rows.values()) {
    const xs = points.map((point) => point.x);
    context.moveTo(Math.min(...xs) - 24, points[0]!.y - 0.5);
    context.lineTo(Math.max(...xs) + 24, points[0]!.y - 0.5);
  }
  if (view.elevation === "front") {
    const floor = project(view, { x: 0, y: 0, z: 0 }).y;
    context.moveTo(0, floor + 0.5);
    context.lineTo(width, floor + 0.5);
  }
  context.stroke();
}

/** Lamps themselves, the chosen ones in bone with their place in the order above them; hollow: those that cannot reach what
 * they are aimed at. */
export function paintHeads(
  context: CanvasRenderingContext2D,
  view: View,
  heads: Head[],
  ranks: Map<string, number>,
  unreached: readonly string[],
) {
  const cannot = new Set(unreached);
  context.font = '12px "Atkinson Hyperlegible Mono Variable", monospace';
  context.textAlign = "center";
  const numbered = ranks.size <= 60;
  const numbers: { at: Point; text: string }[] = [];
  let last: Point | null = null;
  context.strokeStyle = STAGE.bone;
  context.lineWidth = 1;
  for (const box of outlines(view, heads, ranks))
    context.strokeRect(box.left + 0.5, box.top + 0.5, box.right - box.left, box.bottom - box.top);
  for (const head of heads) {
    const at = project(view, placeOf(head));
    const rank = ranks.get(head.key);
    if (CELLS.has(head.kind) || head.leads) continue;
    const half = head.cell ? (rank === undefined ? 1.5 : 2.5) : rank === undefined ? 4 : 5;
    context.fillStyle = rank === undefined ? STAGE.head : STAGE.bone;
    context.fillRect(at.x - half, at.y - half, 2 * half, 2 * half);
    if (cannot.has(head.key)) {
      context.fillStyle = STAGE.ground;
      context.fillRect(at.x - half + 2, at.y - half + 2, 2 * half - 4, 2 * half - 4);
    }
    if (rank === undefined || !numbered) continue;
    const text = String(rank + 1);
    // numbers of cells that stand close are left out where they would run into each other
    if (head.cell && last && Math.abs(at.x - last.x) < 8 * text.length + 4 && Math.abs(at.y - last.y) < 14)
      continue;
    last = at;
    numbers.push({ at, text });
  }
  context.fillStyle = STAGE.bone;
  for (const { at, text, align } of numberPlaces(numbers)) {
    context.textAlign = align;
    context.fillText(text, at.x, at.y);
  }
}

interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}
/** Smaller cells are framed by fixture: a frame round each would hide their light. */
const FRAMED_PX = 10;

/** Frames round the chosen cells, on whole pixels, so that neighbours share their lines. */
export function outlines(
  view: View,
  heads: Pick<Head, "key" | "kind" | "place" | "fixture" | "leads">[],
  ranks: Map<string, number>,
): Box[] {
  const chosen = heads.filter((head) => head.leads && ranks.has(head.key));
  const leaders = new Set(chosen.map((head) => head.fixture));
  const boxes = new Map<string, Box>();
  for (const head of heads) {
    const whole = leaders.has(head.fixture);
    if (head.leads || !(whole || (CELLS.has(head.kind) && ranks.has(head.key)))) continue;
    const at = project(view, placeOf(head));
    const size = cellSize(head.kind, view);
    const [left, right] = [Math.round(at.x - size.x / 2), Math.round(at.x + size.x / 2)];
    const [top, bottom] = [Math.round(at.y - size.y / 2), Math.round(at.y + size.y / 2)];
    const alone = !whole && Math.min(size.x, size.y) >= FRAMED_PX;
    const key = alone ? head.key : String(head.fixture);
    const known = boxes.get(key) ?? { left, top, right, bottom };
    boxes.set(key, {
      left: Math.min(known.left, left),
      top: Math.min(known.top, top),
      right: Math.max(known.right, right),
      bottom: Math.max(known.bottom, bottom),
    });
  }
  return [...boxes.values()];
}

const ABOVE_PX = 10;
const BESIDE_PX = 9;

/** Where the order numbers of lamps stand: above them, or beside them where another lamp is close above. */
export function numberPlaces(numbers: { at: Point; text: string }[]) {
  const close = (a: Point, b: Point) => Math.abs(a.x - b.x) < 14 && b.y < a.y && a.y - b.y < 28;
  return numbers.map(({ at, text }) => {
    const stacked = numbers.some((other) => close(at, other.at) || close(other.at, at));
    return stacked
      ? { at: { x: at.x + BESIDE_PX, y: at.y + 4 }, text, align: "left" as const }
      : { at: { x: at.x, y: at.y - ABOVE_PX }, text, align: "center" as const };
  });
}
