import { useEffect, useMemo, useRef } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { onEveryFrame, wake } from "../../../live/loop";
import type { HeadsFrame } from "../../../live/frame";
import { live, runningOf, shownTheta } from "../../../live/socket";
import { STAGE } from "../../../theme/tokens";
import { DOT, dotPicture, paintDot, paintForm, paintTail } from "./paint";
import { colourOf, heightOf, samplesAt, type Scope } from "./scopes";
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
