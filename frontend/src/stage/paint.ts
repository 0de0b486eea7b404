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

function paintCell(context: CanvasRenderingContext2D, at: Point, light: Light, size: Point) {
  context.fillStyle = `rgb(${light.red} ${light.green} ${light.blue})`;
  context.fillRect(at.x - size.x / 2, at.y - size.y / 2, size.x, size.y);
}

function cellSize(kind: string, view: View): Point {
  const metres =
    kind === "wall" ? { x: 0.115, y: 0.115 } : kind === "batten" ? { x: 0.08, y: 0.16 } : { x: 0.26, y: 0.2 };
  return { x: Math.max(metres.x * view.scaleX, 2), y: Math.max(metres.y * view.scaleY, 2.5) };
}

/** Light: what the newest frame says, beams over cells. */
export function paintLight(
  context: CanvasRenderingContext2D,
  view: View,
  heads: Head[],
  points: Point[],
  frame: HeadsFrame,
) {
  const lamps: [Place, Light][] = [];
  heads.forEach((head, index) => {
    if (head.kind === "haze" || index >= frame.count) return;
    const light = lightOf(frame, index);
    if (CELLS.has(head.kind)) paintCell(context, points[index]!, light, cellSize(head.kind, view));
    else lamps.push([placeOf(head), light]);
  });
  context.globalCompositeOperation = "lighter";
  for (const [place, light] of lamps) paintBeam(context, view, place, light);
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
