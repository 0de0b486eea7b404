import type { Schemas } from "../../../api/client";
import { STAGE } from "../../../theme/tokens";
import { colourOf, figurePoints, heightOf, wavePoints, type Point, type Scope, type Size } from "./scopes";

/** The scope on a canvas: forms, dots and their tails. */

const BONE = STAGE.bone;
const QUIET = STAGE.edge;

function line(context: CanvasRenderingContext2D, points: Point[], closed = false) {
  context.beginPath();
  points.forEach(({ x, y }, n) => (n ? context.lineTo(x, y) : context.moveTo(x, y)));
  if (closed) context.closePath();
  context.stroke();
}

/** Strokes over what is out of the range: it is cut off. */
function hatch(context: CanvasRenderingContext2D, top: number, bottom: number, width: number) {
  if (bottom - top < 1) return;
  context.save();
  context.beginPath();
  context.rect(0, top, width, bottom - top);
  context.clip();
  context.strokeStyle = STAGE.wire;
  for (let x = -40; x < width + 40; x += 7)
    line(context, [
      { x, y: bottom },
      { x: x + (bottom - top), y: top },
    ]);
  context.restore();
}

function paintWave(context: CanvasRenderingContext2D, scope: Scope, size: Size): Point[] {
  const [top, bottom] = [heightOf(scope.high[0]!, scope, size), heightOf(scope.low[0]!, scope, size)];
  hatch(context, 0, top, size.width);
  hatch(context, bottom, size.height, size.width);
  context.strokeStyle = QUIET;
  line(context, [
    { x: 0, y: top },
    { x: size.width, y: top },
  ]);
  line(context, [
    { x: 0, y: bottom },
    { x: size.width, y: bottom },
  ]);
  context.setLineDash([5, 4]);
  const base = heightOf(scope.base[0]!, scope, size);
  line(context, [
    { x: 0, y: base },
    { x: size.width, y: base },
  ]);
  context.setLineDash([]);
  const points = wavePoints(scope, size);
  context.strokeStyle = BONE;
  context.lineWidth = 2;
  line(context, points);
  context.lineWidth = 1;
  return points;
}

function paintColours(context: CanvasRenderingContext2D, scope: Scope, size: Size): Point[] {
  const count = scope.values[0]!.length;
  const step = size.width / count;
  for (let n = 0; n < count; n++) {
    context.fillStyle = colourOf(scope, n);
    context.fillRect(n * step, 20, step + 1, size.height - 60);
  }
  return scope.values[0]!.map((_, n) => ({ x: (n / (count - 1)) * size.width, y: size.height - 22 }));
}

const TAIL_COLUMNS = 14;

/** Where a head was just before: a line that fades behind its dot. */
export function paintTail(
  context: CanvasRenderingContext2D,
  figure: Point[],
  phases: Uint8Array,
  row: number,
  weave: Schemas["WeaveView"],
  share: number,
) {
  const now = Math.min(weave.columns - 1, Math.floor(share * weave.columns));
  let before: Point | null = null;
  for (let back = TAIL_COLUMNS; back >= 0; back--) {
    const column = (now - back + weave.columns) % weave.columns;
    const phase = phases[row * weave.columns + column]!;
    const point = phase === 255 ? null : figure[Math.round((phase / 254) * (figure.length - 1))]!;
    if (before && point) {
      context.globalAlpha = (0.75 * (TAIL_COLUMNS - back)) / TAIL_COLUMNS;
      context.strokeStyle = BONE;
      context.lineWidth = 3;
      line(context, [before, point]);
      context.lineWidth = 1;
      context.globalAlpha = 1;
    }
    before = point;
  }
}

/** The form itself: what stands still while heads move on it. Of a path also the mirrored one, where a head takes it. */
export function paintForm(context: CanvasRenderingContext2D, scope: Scope, size: Size) {
  if (scope.kind === "wave") return { points: paintWave(context, scope, size), other: null };
  if (scope.kind === "colour") return { points: paintColours(context, scope, size), other: null };
  const points = figurePoints(scope, size);
  const other = scope.mirrored.some(Boolean) ? figurePoints(scope, size, true) : null;
  context.strokeStyle = QUIET;
  if (other) line(context, other, true);
  context.strokeStyle = BONE;
  line(context, points, true);
  return { points, other };
}

export const DOT = 4;

export function paintDot(
  context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  { x, y }: Point,
  colour: string,
) {
  context.fillStyle = colour;
  context.beginPath();
  context.arc(x, y, DOT, 0, 7);
  context.fill();
  context.strokeStyle = STAGE.ground;
  context.stroke();
}

/** A dot drawn once, to be copied: a hundred of them are drawn in each frame. */
export function dotPicture(ratio: number): ImageBitmap {
  const side = Math.ceil(2 * (DOT + 1) * ratio);
  const dot = new OffscreenCanvas(side, side);
  const context = dot.getContext("2d")!;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  paintDot(context, { x: DOT + 1, y: DOT + 1 }, BONE);
  return dot.transferToImageBitmap();
}
