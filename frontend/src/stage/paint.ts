import type { Schemas } from "../api/client";
import { HEAD_BYTES, type HeadsFrame } from "../live/frame";
import { STAGE } from "../theme/tokens";
import { beamEnd, beamShape, project, type Place, type Point, type View } from "./geometry";

export type Head = Schemas["HeadView"];

interface Light {
  red: number;
  green: number;
  blue: number;
  zoom: number;
  direction: Place;
}

const REACH_M = 9;
/** How heads look on the picture: as cells of a surface, or as a lamp with a beam. */
const CELLS = new Set(["batten", "wall", "blinder", "strobe"]);

function lightOf(frame: HeadsFrame, index: number): Light {
  const at = index * HEAD_BYTES;
  const { heads } = frame;
  return {
    red: heads.getUint8(at),
    green: heads.getUint8(at + 1),
    blue: heads.getUint8(at + 2),
    zoom: heads.getUint16(at + 4, true) / 100,
    direction: {
      x: heads.getInt16(at + 6, true) / 32767,
      y: heads.getInt16(at + 8, true) / 32767,
      z: heads.getInt16(at + 10, true) / 32767,
    },
  };
}

/** A place as an object, from the three numbers of the API. */
export const placeOf = (head: Head): Place => ({ x: head.place[0], y: head.place[1], z: head.place[2] });

function paintBeam(context: CanvasRenderingContext2D, view: View, place: Place, light: Light) {
  const strength = Math.max(light.red, light.green, light.blue) / 255;
  if (strength < 0.01) return;
  const end = beamEnd(place, light.direction, REACH_M);
  const shape = beamShape(view, place, end, light.zoom, 2.5);
  const from = project(view, place);
  const to = project(view, end);
  const full = 1 / strength;
  const colour = `${Math.round(light.red * full)} ${Math.round(light.green * full)} ${Math.round(light.blue * full)}`;
  const fade = context.createLinearGradient(from.x, from.y, to.x, to.y);
  fade.addColorStop(0, `rgb(${colour} / ${0.82 * strength})`);
  fade.addColorStop(1, `rgb(${colour} / ${0.12 * strength})`);
  context.fillStyle = fade;
  context.beginPath();
  shape.forEach((corner, n) => (n ? context.lineTo(corner.x, corner.y) : context.moveTo(corner.x, corner.y)));
  context.closePath();
  context.fill();
}

function cellSize(kind: string, view: View): Point {
  const metres =
    kind === "wall" ? { x: 0.115, y: 0.115 } : kind === "batten" ? { x: 0.08, y: 0.16 } : { x: 0.26, y: 0.2 };
  return { x: Math.max(metres.x * view.scaleX, 2), y: Math.max(metres.y * view.scaleY, 2.5) };
}

/** Where the cells of a rig are on a picture of a size, in its own pixels: written there without drawing each. */
export interface CellGround {
  image: ImageData;
  cells: { index: number; x: number; y: number; width: number; height: number }[];
}

/** The ground of the stage, with room for the cells of batten, wall and the like. scale: pixels of the picture per CSS pixel. */
export function cellGround(
  view: View,
  heads: Head[],
  size: { width: number; height: number },
  scale: number,
): CellGround {
  const image = new ImageData(size.width, size.height);
  const ground = parseInt(STAGE.ground.slice(1), 16);
  new Uint32Array(image.data.buffer).fill(pixel(ground >> 16, (ground >> 8) & 255, ground & 255));
  const within = (value: number, most: number) => Math.min(Math.max(Math.round(value * scale), 0), most);
  const cells = heads.flatMap((head, index) => {
    if (!CELLS.has(head.kind)) return [];
    const at = project(view, placeOf(head));
    const half = cellSize(head.kind, view);
    const [x, y] = [within(at.x - half.x / 2, size.width), within(at.y - half.y / 2, size.height)];
    const width = within(at.x + half.x / 2, size.width) - x;
    const height = within(at.y + half.y / 2, size.height) - y;
    return [{ index, x, y, width, height }];
  });
  return { image, cells };
}

/** A colour as a pixel of an `ImageData` seen as 32-bit numbers (all machines that browsers run on put red first). */
const pixel = (red: number, green: number, blue: number) =>
  ((255 << 24) | (blue << 16) | (green << 8) | red) >>> 0;

/** The ground with the cells on it, as the frame says; it covers all that was there. */
export function paintCells(
  context: CanvasRenderingContext2D,
  { image, cells }: CellGround,
  frame: HeadsFrame,
) {
  const pixels = new Uint32Array(image.data.buffer);
  for (const { index, x, y, width, height } of cells) {
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
  context.putImageData(image, 0, 0);
}

/** Beams of the lamps, as the frame says: light on light. */
export function paintBeams(context: CanvasRenderingContext2D, view: View, heads: Head[], frame: HeadsFrame) {
  context.globalCompositeOperation = "lighter";
  heads.forEach((head, index) => {
    if (head.kind === "haze" || CELLS.has(head.kind) || index >= frame.count) return;
    paintBeam(context, view, placeOf(head), lightOf(frame, index));
  });
  context.globalCompositeOperation = "source-over";
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

/** Lamps themselves, the chosen ones in bone with their place in the order above them. */
export function paintHeads(
  context: CanvasRenderingContext2D,
  view: View,
  heads: Head[],
  ranks: Map<string, number>,
) {
  context.font = '12px "Atkinson Hyperlegible Mono Variable", monospace';
  context.textAlign = "center";
  const numbered = ranks.size <= 60;
  for (const head of heads) {
    const at = project(view, placeOf(head));
    const rank = ranks.get(head.key);
    if (CELLS.has(head.kind)) {
      if (rank === undefined) continue;
      const size = cellSize(head.kind, view);
      context.strokeStyle = STAGE.bone;
      context.strokeRect(at.x - size.x / 2 - 0.5, at.y - size.y / 2 - 0.5, size.x + 1, size.y + 1);
      continue;
    }
    const half = rank === undefined ? 4 : 5;
    context.fillStyle = rank === undefined ? STAGE.head : STAGE.bone;
    context.fillRect(at.x - half, at.y - half, 2 * half, 2 * half);
    if (rank !== undefined && numbered) {
      context.fillText(String(rank + 1), at.x, at.y - 10);
    }
  }
}
