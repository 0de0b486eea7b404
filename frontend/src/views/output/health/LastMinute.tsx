import { useEffect, useRef } from "react";
import styled from "styled-components";

import { bars, SECONDS, type Second } from "./minute";

const Picture = styled.figure`
  margin: 0;
  canvas {
    width: 100%;
    height: 96px;
    display: block;
    border-bottom: 1px solid var(--edge);
    border-top: 1px dashed var(--line);
  }
  figcaption {
    color: var(--quiet);
    font-size: 14px;
    display: flex;
    justify-content: space-between;
  }
`;
const HEIGHT = 96;
const LATE_PX = 5;

/** The last minute, second by second: the usual frame solid, the longest open above it, late ones marked on top. */
export function LastMinute({ minute, budget }: { minute: Second[]; budget: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const late = minute.reduce((sum, second) => sum + second.late, 0);
  const worst = Math.max(0, ...minute.map((second) => second.worst_ms));
  useEffect(() => {
    const element = canvas.current!;
    const context = element.getContext("2d")!;
    const width = element.clientWidth;
    const scale = devicePixelRatio;
    element.width = Math.round(width * scale);
    element.height = Math.round(HEIGHT * scale);
    context.setTransform(scale, 0, 0, scale, 0, 0);
    const bone = getComputedStyle(element).getPropertyValue("--bone");
    context.fillStyle = context.strokeStyle = bone;
    for (const bar of bars(minute, budget, width)) {
      const usual = Math.max(1, bar.middle * HEIGHT);
      context.globalAlpha = 1;
      context.fillRect(bar.x, HEIGHT - usual, bar.width, usual);
      context.globalAlpha = 0.3;
      context.fillRect(bar.x, HEIGHT - bar.worst * HEIGHT, bar.width, bar.worst * HEIGHT - usual);
      context.globalAlpha = 1;
      if (bar.late) context.fillRect(bar.x, 0, bar.width, LATE_PX);
    }
  }, [minute, budget]);
  const words = `Longest frame ${worst.toFixed(1)} ms of ${budget.toFixed(1)}; ${late} late`;
  return (
    <Picture>
      <canvas ref={canvas} role="img" aria-label={words} />
      <figcaption>
        <span>{SECONDS} s ago</span>
        <span>{words}. Full height: all the time there is.</span>
        <span>now</span>
      </figcaption>
    </Picture>
  );
}
