import type { Schemas } from "../../../api/client";

/** Geometry of the scope. Pure: values in, pixels out. */

export type Scope = Schemas["ScopeView"];
export interface Size {
  width: number;
  height: number;
}
export interface Point {
  x: number;
  y: number;
}
const PAD = 12;

/** What a wave is drawn against: the range, widened so that what is cut off can be seen. */
export function reach(scope: Scope): { low: number; high: number } {
  const values = scope.values[0]!;
  return {
    low: Math.min(scope.low[0]!, scope.base[0]!, ...values),
    high: Math.max(scope.high[0]!, scope.base[0]!, ...values),
  };
}

/** Height of a value on the picture. */
export function heightOf(value: number, scope: Scope, size: Size): number {
  const { low, high } = reach(scope);
  return size.height - PAD - ((value - low) / (high - low || 1)) * (size.height - 2 * PAD);
}

/** Where the middle of a wave is, from the top of the picture, 0…1. */
export function middleOf(scope: Scope): number {
  const values = scope.values[0]!;
  const size = { width: 1, height: 148 };
  return heightOf((Math.min(...values) + Math.max(...values)) / 2, scope, size) / size.height;
}

/** Points of a wave over its cycle. */
export function wavePoints(scope: Scope, size: Size): Point[] {
  const values = scope.values[0]!;
  return values.map((value, n) => ({
    x: (n / (values.length - 1)) * size.width,
    y: heightOf(value, scope, size),
  }));
}

/** A figure of pan and tilt on the picture, both to one scale, about its base; mirrored the other way round. */
export function figurePoints(scope: Scope, size: Size, mirrored = false): Point[] {
  const [xs, ys] = [scope.values[0]!, scope.values[1]!];
  const [baseX, baseY] = [scope.base[0]!, scope.base[1]!];
  const most = Math.max(...xs.map((x) => Math.abs(x - baseX)), ...ys.map((y) => Math.abs(y - baseY)), 1e-6);
  const scale = (Math.min(size.width, size.height) / 2 - PAD) / most;
  const side = mirrored ? -1 : 1;
  return xs.map((x, n) => ({
    x: size.width / 2 + side * (x - baseX) * scale,
    y: size.height / 2 - (ys[n]! - baseY) * scale,
  }));
}

/** The colour of a sample. */
export function colourOf(scope: Scope, n: number): string {
  const [red, green, blue] = scope.values.map((plane) =>
    Math.round(Math.min(Math.max(plane[n]!, 0), 1) * 255),
  );
  return `rgb(${red} ${green} ${blue})`;
}

/** Samples at which the heads are, one a row, at a share of the weave's time; -1 at rest. */
export function samplesAt(
  phases: Uint8Array,
  rows: number,
  columns: number,
  share: number,
  samples: number,
): number[] {
  const column = Math.min(columns - 1, Math.max(0, Math.floor(share * columns)));
  return Array.from({ length: rows }, (_, row) => {
    const phase = phases[row * columns + column]!;
    return phase === 255 ? -1 : Math.round((phase / 254) * (samples - 1));
  });
}

/** The anchor after a drag by `units` upwards, taken at `grabbed` (a value); null where a drag has no meaning.
 * perUnit: how much deeper it is for each unit; most: the greatest depth. */
export function dragged(
  anchor: Anchor | null,
  units: number,
  grabbed: number,
  perUnit: number,
  most: number,
): Anchor | null {
  if (!anchor) return null;
  const neat = (value: number) => Math.round(value * 10) / 10;
  if (anchor.kind === "between") {
    const { low, high } = anchor;
    if (Math.abs(grabbed - high!) <= Math.abs(grabbed - low!))
      return { ...anchor, high: neat(high! + units) };
    return { ...anchor, low: neat(low! + units) };
  }
  return { ...anchor, depth: neat(Math.min(Math.max(anchor.depth! + units * perUnit, 0), most)) };
}

export interface Anchor {
  kind: string;
  depth?: number;
  low?: number;
  high?: number;
}
