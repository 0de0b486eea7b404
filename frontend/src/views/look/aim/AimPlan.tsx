import { useEffect, useRef, useState } from "react";
import styled from "styled-components";

import type { Head, Rig } from "../../../api/rig";
import { onEveryFrame } from "../../../live/loop";
import { live } from "../../../live/socket";
import { beamEnd } from "../../../stage/geometry";
import { lensOf } from "../../../stage/paint";
import { STAGE } from "../../../theme/tokens";
import { useMoves } from "../../../ui/useMoves";
import { planOf, toPixel, toStage, type Plan, type XY } from "./plan";

const Canvas = styled.canvas`
  width: 100%;
  height: 100%;
  display: block;
  background: var(--stage-ground);
  cursor: crosshair;
  touch-action: none;
`;
const REACH_M = 30;
const LIGHT_PX = 7;
const MARK_PX = 9;
const STEP_M = 0.1;

interface Props {
  rig: Rig;
  heads: Head[];
  point: XY;
  unreached: ReadonlySet<string>;
  onPoint: (point: XY, kept: boolean) => void;
}

/** The stage from above: the lights, where each points now, and the mark that they are aimed at. */
export function AimPlan({ rig, heads, point, unreached, onPoint }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [plan, setPlan] = useState<Plan | null>(null);
  const dragged = useRef(false);
  useEffect(() => {
    const element = canvas.current!;
    const places = rig.heads.map(({ place: [x, y] }) => ({ x, y }));
    const seen = new ResizeObserver(() => setPlan(planOf(places, element.clientWidth, element.clientHeight)));
    seen.observe(element);
    return () => seen.disconnect();
  }, [rig]);
  useEffect(() => {
    if (!plan) return;
    const element = canvas.current!;
    const context = element.getContext("2d")!;
    const numbers = new Map(rig.heads.map((head, index) => [head.key, index]));
    return onEveryFrame(() => {
      const scale = devicePixelRatio;
      const [width, height] = [element.clientWidth, element.clientHeight];
      element.width = Math.round(width * scale);
      element.height = Math.round(height * scale);
      context.setTransform(scale, 0, 0, scale, 0, 0);
      context.strokeStyle = STAGE.wire;
      const edge = toPixel(plan, { x: 0, y: 0 });
      context.beginPath();
      context.moveTo(0, edge.y);
      context.lineTo(width, edge.y);
      context.moveTo(edge.x, 0);
      context.lineTo(edge.x, height);
      context.stroke();
      context.fillStyle = STAGE.quiet;
      context.font = '12px "Atkinson Hyperlegible Next Variable", sans-serif';
      context.fillText("edge of the stage", 8, edge.y + 15);
      const frame = live.heads?.rig === rig.number ? live.heads : null;
      for (const head of heads) {
        const [x, y, z] = head.place;
        const at = toPixel(plan, { x, y });
        const cannot = unreached.has(head.key);
        if (frame) {
          const { direction } = lensOf(frame, numbers.get(head.key)!);
          const end = toPixel(plan, beamEnd({ x, y, z }, direction, REACH_M));
          context.strokeStyle = STAGE.quiet;
          context.setLineDash(cannot ? [2, 4] : []);
          context.beginPath();
          context.moveTo(at.x, at.y);
          context.lineTo(end.x, end.y);
          context.stroke();
          context.setLineDash([]);
        }
        context.fillStyle = context.strokeStyle = STAGE.bone;
        const box = [at.x - LIGHT_PX / 2, at.y - LIGHT_PX / 2, LIGHT_PX, LIGHT_PX] as const;
        if (cannot) context.strokeRect(...box);
        else context.fillRect(...box);
      }
      const mark = toPixel(plan, point);
      context.strokeStyle = STAGE.bone;
      context.lineWidth = 2;
      context.beginPath();
      context.arc(mark.x, mark.y, MARK_PX, 0, 2 * Math.PI);
      for (const [dx, dy] of [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ] as const) {
        context.moveTo(mark.x + dx * 4, mark.y + dy * 4);
        context.lineTo(mark.x + dx * (MARK_PX + 5), mark.y + dy * (MARK_PX + 5));
      }
      context.stroke();
      context.lineWidth = 1;
    });
  }, [plan, rig, heads, point, unreached]);
  const at = (event: { clientX: number; clientY: number }) => {
    const box = canvas.current!.getBoundingClientRect();
    return toStage(plan!, { x: event.clientX - box.left, y: event.clientY - box.top });
  };
  useMoves(canvas, (event) => dragged.current && onPoint(at(event), false));
  return (
    <Canvas
      ref={canvas}
      role="application"
      tabIndex={0}
      aria-label={`Aim on the plan: ${point.x} m across, ${point.y} m upstage. Drag the mark, or use the arrow keys`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        dragged.current = true;
        onPoint(at(event), false);
      }}
      onPointerUp={(event) => {
        if (dragged.current) onPoint(at(event), true);
        dragged.current = false;
      }}
      onKeyDown={(event) => {
        const step = event.shiftKey ? 10 * STEP_M : STEP_M;
        const by = {
          ArrowLeft: [-step, 0],
          ArrowRight: [step, 0],
          ArrowUp: [0, step],
          ArrowDown: [0, -step],
        }[event.key];
        if (!by) return;
        event.preventDefault();
        const rounded = (metres: number) => Math.round(metres * 100) / 100;
        onPoint({ x: rounded(point.x + by[0]!), y: rounded(point.y + by[1]!) }, true);
      }}
    />
  );
}
