/** Geometry of the point editor: pixels to units and back. Pure. */

export type XY = [number, number];
export interface Box {
  low: { x: number; y: number };
  high: { x: number; y: number };
}

/** A box round points with some room, never without extent. */
export function boxOf(points: readonly XY[]): Box {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const room = (low: number, high: number) => Math.max((high - low) * 0.15, 0.1);
  const [lowX, highX, lowY, highY] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  return {
    low: { x: lowX - room(lowX, highX), y: lowY - room(lowY, highY) },
    high: { x: highX + room(lowX, highX), y: highY + room(lowY, highY) },
  };
}

const clamp = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high);
const neat = (value: number) => Math.round(value * 1000) / 1000;

/** Units at a pixel of a plot with a margin `pad`; y goes up. */
export function toUnit(
  at: { x: number; y: number },
  box: Box,
  size: { x: number; y: number },
  pad: number,
): XY {
  const x = clamp((at.x - pad) / (size.x - 2 * pad), 0, 1);
  const y = clamp((size.y - pad - at.y) / (size.y - 2 * pad), 0, 1);
  return [neat(box.low.x + x * (box.high.x - box.low.x)), neat(box.low.y + y * (box.high.y - box.low.y))];
}

/** Which point is under the pointer: within a twentieth of the plot; null when none is. */
export function nearestPoint(points: readonly XY[], at: XY, box: Box): number | null {
  let best: number | null = null;
  let distance = 0.05;
  points.forEach(([x, y], n) => {
    const away = Math.hypot((x - at[0]) / (box.high.x - box.low.x), (y - at[1]) / (box.high.y - box.low.y));
    if (away < distance) [best, distance] = [n, away];
  });
  return best;
}

/** The points with one moved; the phases of a curve stay in their order. */
export function placed(points: readonly XY[], index: number, to: XY, rising: boolean): XY[] {
  const low = rising && index > 0 ? points[index - 1]![0] + 0.001 : -Infinity;
  const high = rising && index < points.length - 1 ? points[index + 1]![0] - 0.001 : Infinity;
  return points.map((point, n) => (n === index ? [clamp(to[0], low, high), to[1]] : point));
}
