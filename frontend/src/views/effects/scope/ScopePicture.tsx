import { useEffect, useMemo, useRef } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { onEveryFrame, wake } from "../../../live/loop";
import type { HeadsFrame } from "../../../live/frame";
import { live, runningOf, shownTheta } from "../../../live/socket";
import { STAGE } from "../../../theme/tokens";
import {
  colourOf,
  figurePoints,
  heightOf,
  samplesAt,
  wavePoints,
  type Point,
  type Scope,
  type Size,
} from "./scopes";
import { bytesOf } from "../weave/pixels";

const Canvas = styled.canvas`
  width: 100%;
  height: 148px;
  display: block;
  background: ${STAGE.ground};
  touch-action: none;
  &[data-drags] {
    cursor: ns-resize;
  }
`;
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
function paintTail(
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
function paintForm(context: CanvasRenderingContext2D, scope: Scope, size: Size) {
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

const DOT = 4;

function paintDot(
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
function dotPicture(ratio: number): ImageBitmap {
  const side = Math.ceil(2 * (DOT + 1) * ratio);
  const dot = new OffscreenCanvas(side, side);
  const context = dot.getContext("2d")!;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  paintDot(context, { x: DOT + 1, y: DOT + 1 }, BONE);
  return dot.transferToImageBitmap();
}

interface Props {
  scope: Scope;
  weave: Schemas["WeaveView"];
  runKey: string | null;
  onDrag: (units: (height: number) => number, phase: "start" | "move" | "end", grabbed: number) => void;
  drags: boolean;
}

/** The form of a layer over its cycle, with a dot for where each head is now. */
export function ScopePicture({ scope, weave, runKey, onDrag, drags }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const phases = useMemo(() => bytesOf(scope.phases), [scope.phases]);
  const from = useRef<number | null>(null);

  useEffect(() => {
    const element = canvas.current!;
    const context = element.getContext("2d", { alpha: false })!;
    const still = document.createElement("canvas");
    let form: ReturnType<typeof paintForm> | null = null;
    let dot: ImageBitmap | null = null;
    let size = { width: 0, height: 0 };
    let shown: HeadsFrame | null = null;
    const seen = new ResizeObserver(([entry]) => {
      size = { width: entry!.contentRect.width, height: entry!.contentRect.height };
      form = null;
      wake();
    });
    seen.observe(element);
    const paint = () => {
      if (!size.width || (form && shown === live.heads)) return;
      shown = live.heads;
      const ratio = devicePixelRatio;
      if (!form) {
        element.width = still.width = Math.round(size.width * ratio);
        element.height = still.height = Math.round(size.height * ratio);
        const quiet = still.getContext("2d")!;
        quiet.setTransform(ratio, 0, 0, ratio, 0, 0);
        quiet.fillStyle = STAGE.ground;
        quiet.fillRect(0, 0, size.width, size.height);
        form = paintForm(quiet, scope, size);
        dot = dotPicture(ratio);
        context.setTransform(ratio, 0, 0, ratio, 0, 0);
      }
      context.drawImage(still, 0, 0, size.width, size.height);
      const running = runKey ? runningOf(runKey) : null;
      if (!running) return;
      const { points, other } = form;
      const side = dot!.width / ratio;
      const share =
        ((((shownTheta(running.theta, runKey!, scope.layer) - weave.start) / weave.cycles) % 1) + 1) % 1;
      const at = samplesAt(phases, weave.heads.length, weave.columns, share, points.length);
      at.forEach((sample, row) => {
        if (sample < 0) return;
        const figure = scope.mirrored[row] && other ? other : points;
        if (scope.kind === "path") paintTail(context, figure, phases, row, weave, share);
        const place = figure[sample]!;
        if (scope.kind === "colour") paintDot(context, place, colourOf(scope, sample));
        else context.drawImage(dot!, place.x - DOT - 1, place.y - DOT - 1, side, side);
      });
    };
    const stop = onEveryFrame(paint);
    return () => {
      stop();
      seen.disconnect();
    };
  }, [scope, weave, runKey, phases]);

  const units = (event: React.PointerEvent<HTMLCanvasElement>) => {
    const size = { width: event.currentTarget.clientWidth, height: event.currentTarget.clientHeight };
    const perPixel = heightOf(scope.base[0]!, scope, size) - heightOf(scope.base[0]! + 1, scope, size) || 1;
    return (height: number) => height / perPixel;
  };
  const value = (event: React.PointerEvent<HTMLCanvasElement>) => {
    const base = heightOf(scope.base[0]!, scope, { width: 0, height: event.currentTarget.clientHeight });
    return scope.base[0]! + units(event)(base - event.nativeEvent.offsetY);
  };
  return (
    <Canvas
      ref={canvas}
      role="img"
      data-drags={drags || undefined}
      aria-label={`Layer ${scope.layer + 1}: ${scope.names.join(", ")} over one cycle`}
      onPointerDown={(event) => {
        if (!drags) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = event.clientY;
        onDrag(units(event), "start", value(event));
      }}
      onPointerMove={(event) => {
        if (from.current !== null) onDrag(() => units(event)(from.current! - event.clientY), "move", 0);
      }}
      onPointerUp={(event) => {
        if (from.current === null) return;
        const moved = units(event)(from.current - event.clientY);
        from.current = null;
        onDrag(() => moved, "end", 0);
      }}
    />
  );
}
