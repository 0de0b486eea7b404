import type { Head } from "../api/rig";
import type { Elevation, Point, View } from "./geometry";

/** How far fixtures are carried, in metres. */
export interface Carry {
  x: number;
  y: number;
  z: number;
}
const SNAP_PX = 8;
const STEP_M = 0.05;

const toStep = (metres: number) => Math.round(metres / STEP_M) * STEP_M;

/** How far a hand has carried fixtures: in steps, and onto the lines of others that stand still. */
export function carry(
  view: View,
  from: Point,
  to: Point,
  own: readonly Head[],
  others: readonly Head[],
): Carry {
  const across = (to.x - from.x) / view.scaleX;
  const up = (from.y - to.y) / view.scaleY;
  const axis = view.elevation === "front" ? 2 : 1;
  const x = onto(
    across,
    own.map((head) => head.place[0]),
    others.map((head) => head.place[0]),
    view.scaleX,
  );
  const other = onto(
    up,
    own.map((head) => head.place[axis]),
    others.map((head) => head.place[axis]),
    view.scaleY,
  );
  return view.elevation === "front" ? { x, y: 0, z: other } : { x, y: other, z: 0 };
}

/** A way along one axis, so that one of the places comes onto a line of the others where it is close to one. */
function onto(way: number, places: readonly number[], lines: readonly number[], scale: number): number {
  let best: number | null = null;
  for (const line of new Set(lines))
    for (const place of places) {
      const off = line - (place + way);
      if (Math.abs(off) * scale < SNAP_PX && (best === null || Math.abs(off) < Math.abs(best))) best = off;
    }
  return best === null ? toStep(way) : way + best;
}

/** Whether a head stands where a hand has hold of it. */
export const isCarried = ({ x, y, z }: Carry) => Math.abs(x) + Math.abs(y) + Math.abs(z) > 1e-6;

/** In words, for the hint beside the hand. */
export function carryText({ x, y, z }: Carry, elevation: Elevation): string {
  const metres = (value: number) => `${value > 0 ? "+" : value < 0 ? "−" : ""}${Math.abs(value).toFixed(2)}`;
  return `x ${metres(x)} m, ${elevation === "front" ? `z ${metres(z)}` : `y ${metres(y)}`} m`;
}
