/** The rectangle of a layer on the canvas: pure geometry. Shares of the canvas's width and height; turn in degrees, clockwise. */

export interface Rect {
  left: number;
  top: number;
  width: number;
  height: number;
  turn: number;
}
export interface Point {
  x: number;
  y: number;
}
export type Handle = "move" | "turn" | "nw" | "ne" | "sw" | "se";
export const CORNERS = ["nw", "ne", "sw", "se"] as const;
const LEAST = 0.02;
const TURNS_BY = 15;

/** A point turned about another, by degrees clockwise (y downwards). */
export function turned(point: Point, about: Point, degrees: number): Point {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const [x, y] = [point.x - about.x, point.y - about.y];
  return { x: about.x + x * c - y * s, y: about.y + x * s + y * c };
}

export const middle = (rect: Rect, size: Point): Point => ({
  x: (rect.left + rect.width / 2) * size.x,
  y: (rect.top + rect.height / 2) * size.y,
});

/** The corners of a rectangle in pixels of a canvas of a size, in the order of `CORNERS`. */
export function corners(rect: Rect, size: Point): Point[] {
  const about = middle(rect, size);
  const [left, right] = [rect.left * size.x, (rect.left + rect.width) * size.x];
  const [top, bottom] = [rect.top * size.y, (rect.top + rect.height) * size.y];
  const plain = [
    { x: left, y: top },
    { x: right, y: top },
    { x: left, y: bottom },
    { x: right, y: bottom },
  ];
  return plain.map((point) => turned(point, about, rect.turn));
}

/** Where the handle that turns it is: above its upper edge. */
export function turnHandle(rect: Rect, size: Point, above: number): Point {
  const about = middle(rect, size);
  return turned({ x: about.x, y: rect.top * size.y - above }, about, rect.turn);
}

const rounded = (value: number) => Math.round(value * 1000) / 1000;

/** The rectangle after a handle was dragged from one point to another, in pixels. fine: turned freely. */
export function dragged(rect: Rect, handle: Handle, from: Point, to: Point, size: Point, fine = false): Rect {
  if (handle === "move")
    return {
      ...rect,
      left: rounded(rect.left + (to.x - from.x) / size.x),
      top: rounded(rect.top + (to.y - from.y) / size.y),
    };
  const about = middle(rect, size);
  if (handle === "turn") {
    const angle = (Math.atan2(to.x - about.x, about.y - to.y) * 180) / Math.PI;
    const turn = fine ? Math.round(angle) : Math.round(angle / TURNS_BY) * TURNS_BY;
    return { ...rect, turn };
  }
  // a corner moves, and the one across stays where it is
  const here = corners(rect, size);
  const fixed = here[3 - CORNERS.indexOf(handle)]!;
  const own = turned(to, fixed, -rect.turn);
  const [wide, tall] = [
    handle.endsWith("e") ? own.x - fixed.x : fixed.x - own.x,
    handle.startsWith("s") ? own.y - fixed.y : fixed.y - own.y,
  ];
  const [width, height] = [Math.max(wide, LEAST * size.x), Math.max(tall, LEAST * size.y)];
  const opposite = turned(
    {
      x: fixed.x + (handle.endsWith("e") ? width : -width),
      y: fixed.y + (handle.startsWith("s") ? height : -height),
    },
    fixed,
    rect.turn,
  );
  const centre = { x: (fixed.x + opposite.x) / 2, y: (fixed.y + opposite.y) / 2 };
  return {
    left: rounded((centre.x - width / 2) / size.x),
    top: rounded((centre.y - height / 2) / size.y),
    width: rounded(width / size.x),
    height: rounded(height / size.y),
    turn: rect.turn,
  };
}
