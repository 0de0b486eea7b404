import { useRef, useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useSize } from "../../../ui/useSize";
import { dragTo, spanOf, xOf, yOf, type Frame } from "./curve";

const Box = styled.div`
  position: relative;
  min-height: 90px;
  flex: 1;
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    background: var(--stage-ground);
    cursor: ns-resize;
    touch-action: none;
    user-select: none;
  }
  polyline {
    fill: none;
    stroke: var(--stage-quiet);
  }
  rect {
    fill: var(--stage-bone);
  }
  rect[data-at] {
    outline: 2px solid var(--stage-bone);
    outline-offset: 3px;
  }
  line {
    stroke: var(--stage-wire);
  }
  text {
    fill: var(--stage-quiet);
    font: 12px var(--numbers);
    text-anchor: middle;
  }
`;
const POINT_PX = 9;
const MOST_NAMES = 14;

interface Props {
  fan: Schemas["FanView"];
  onDrag: (head: string, value: number, kept: boolean) => void;
}

/** Values over the ordered heads as a curve; any head can be dragged, and the others follow by the rule. */
export function FanCurve({ fan, onDrag }: Props) {
  const [room, measure] = useSize();
  const { heads, values, label, unit } = fan;
  const dragged = useRef<{ rank: number; frame: Frame } | null>(null);
  const [at, setAt] = useState(0);
  const [held, setHeld] = useState<Frame | null>(null);
  const frame = held ?? { width: room.width, height: room.height, ...spanOf(values, fan.low, fan.high) };
  const points = values.map((value, rank) => ({
    x: xOf(rank, values.length, frame),
    y: yOf(value, frame),
  }));
  const every = Math.ceil(heads.length / MOST_NAMES);
  const placed = (event: React.PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect();
    return dragTo(
      event.clientX - box.left,
      event.clientY - box.top,
      heads.length,
      dragged.current?.frame ?? frame,
    );
  };
  const rounded = (value: number) => Math.round(value * 10) / 10;
  return (
    <Box ref={measure}>
      <svg
        role="application"
        tabIndex={0}
        aria-label={`Curve of ${label}: head ${heads[at]} at ${rounded(values[at] ?? 0)} ${unit}. Left and right choose a head, up and down drag it`}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const { rank } = placed(event);
          dragged.current = { rank, frame };
          setHeld(frame); // the picture stands still under the hand
          setAt(rank);
        }}
        onPointerMove={(event) => {
          if (dragged.current) onDrag(heads[dragged.current.rank]!, rounded(placed(event).value), false);
        }}
        onPointerUp={(event) => {
          if (dragged.current) onDrag(heads[dragged.current.rank]!, rounded(placed(event).value), true);
          dragged.current = null;
          setHeld(null);
        }}
        onKeyDown={(event) => {
          const aside = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
          const up = { ArrowUp: 1, ArrowDown: -1 }[event.key];
          if (aside === undefined && up === undefined) return;
          event.preventDefault();
          if (aside) setAt(Math.min(Math.max(at + aside, 0), heads.length - 1));
          if (up) onDrag(heads[at]!, rounded(values[at]! + up * (event.shiftKey ? 10 : 1)), true);
        }}
      >
        {frame.low < 0 && frame.high > 0 && (
          <line x1={0} x2={frame.width} y1={yOf(0, frame)} y2={yOf(0, frame)} />
        )}
        <polyline points={points.map(({ x, y }) => `${x},${y}`).join(" ")} />
        {points.map(({ x, y }, rank) => (
          <rect
            key={heads[rank]}
            data-at={rank === at || undefined}
            x={x - POINT_PX / 2}
            y={y - POINT_PX / 2}
            width={POINT_PX}
            height={POINT_PX}
          />
        ))}
        {points.map(
          ({ x, y }, rank) =>
            rank % every === 0 && (
              <text key={heads[rank]} x={x} y={y > frame.height / 2 ? y - 10 : y + 20}>
                {heads[rank]}
              </text>
            ),
        )}
      </svg>
    </Box>
  );
}
