import { useRef, useState } from "react";
import styled from "styled-components";

import type { SlotProps } from "./Slot";

const Board = styled.svg`
  width: 240px;
  height: 240px;
  background: var(--stage-ground);
  touch-action: none;
  polygon {
    fill: #efe7d8;
    fill-opacity: 0.35;
    stroke: #efe7d8;
    stroke-width: 0.02;
  }
  circle {
    fill: #14110e;
    stroke: #fff;
    stroke-width: 0.03;
    cursor: grab;
  }
`;
type Point = [number, number];
const FEWEST = 3;
const MOST = 64;
const rounded = (value: number) => Math.round(Math.min(Math.max(value, -1), 1) * 100) / 100;

/** An own outline: points are dragged; a press on the empty board adds one behind the last, a double press takes one away. */
export function OutlineSlot({ part, editor }: SlotProps) {
  const board = useRef<SVGSVGElement>(null);
  const [points, setPoints] = useState(part.value as Point[]);
  const held = useRef<number | null>(null);
  const change = (value: Point[]) => ({ operation: "set" as const, path: part.slot!, value });
  const at = (event: React.PointerEvent): Point => {
    const box = board.current!.getBoundingClientRect();
    return [
      rounded(((event.clientX - box.left) / box.width) * 2 - 1),
      rounded(((event.clientY - box.top) / box.height) * 2 - 1),
    ];
  };
  function keep(next: Point[]) {
    setPoints(next);
    void editor.commit(change(next));
  }
  return (
    <div>
      <Board
        ref={board}
        viewBox="-1.05 -1.05 2.1 2.1"
        role="group"
        aria-label="Outline"
        onPointerDown={(event) => {
          if (event.target === board.current && points.length < MOST) keep([...points, at(event)]);
        }}
        onPointerMove={(event) => {
          if (held.current === null) return;
          const next = points.map((point, n) => (n === held.current ? at(event) : point));
          setPoints(next);
          editor.preview(change(next));
        }}
        onPointerUp={() => {
          if (held.current !== null) keep(points);
          held.current = null;
        }}
      >
        <polygon points={points.map((point) => point.join(",")).join(" ")} pointerEvents="none" />
        {points.map(([x, y], n) => (
          <circle
            key={n}
            cx={x}
            cy={y}
            r={0.06}
            onPointerDown={(event) => {
              event.stopPropagation();
              board.current!.setPointerCapture(event.pointerId);
              held.current = n;
            }}
            onDoubleClick={() => points.length > FEWEST && keep(points.filter((_, m) => m !== n))}
          />
        ))}
      </Board>
      <p>Drag the points. Press beside them to add one, twice on one to take it away.</p>
    </div>
  );
}
