import { useRef } from "react";
import styled from "styled-components";

import { CORNERS, corners, dragged, turnHandle, type Handle, type Point, type Rect } from "./rects";

const Drawing = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
  touch-action: none;
  polygon {
    fill: transparent;
    stroke: #fff;
    stroke-width: 1.5;
    paint-order: stroke;
    cursor: move;
    outline: none;
  }
  polygon.under {
    stroke: #000;
    stroke-width: 4;
    pointer-events: none;
  }
  polygon:focus-visible {
    stroke-width: 3;
    stroke-dasharray: 6 3;
  }
  rect,
  circle {
    fill: #14110e;
    stroke: #fff;
    stroke-width: 2;
    cursor: nwse-resize;
  }
  circle {
    cursor: grab;
  }
`;
const ABOVE_PX = 16;
const CORNER_PX = 10;
const STEP = 0.01;
const FINER = 0.2;

interface Props {
  rect: Rect;
  size: Point;
  name: string;
  onPreview: (rect: Rect) => void;
  onCommit: (rect: Rect) => void;
}

/** Where the chosen layer lies: dragged as a whole, by its corners, turned by the handle above; by arrow keys, too. */
export function RectTool({ rect, size, name, onPreview, onCommit }: Props) {
  const held = useRef<{ handle: Handle; from: Point; rect: Rect; now: Rect } | null>(null);
  const drawing = useRef<SVGSVGElement>(null);
  const at = (event: React.PointerEvent): Point => {
    const box = drawing.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  function begin(handle: Handle, event: React.PointerEvent) {
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { handle, from: at(event), rect, now: rect };
  }
  function move(event: React.PointerEvent) {
    const own = held.current;
    if (!own) return;
    own.now = dragged(own.rect, own.handle, own.from, at(event), size, event.altKey || event.shiftKey);
    onPreview(own.now);
  }
  function end() {
    const own = held.current;
    held.current = null;
    if (own && JSON.stringify(own.now) !== JSON.stringify(own.rect)) onCommit(own.now);
  }
  function onKey(event: React.KeyboardEvent) {
    const step = event.altKey ? STEP * FINER : STEP;
    const [x, y] =
      { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key] ?? [];
    if (x === undefined || y === undefined) return;
    event.preventDefault();
    onCommit(
      event.shiftKey
        ? {
            ...rect,
            width: Math.max(0.02, rect.width + x * step),
            height: Math.max(0.02, rect.height + y * step),
          }
        : { ...rect, left: rect.left + x * step, top: rect.top + y * step },
    );
  }
  const points = corners(rect, size);
  const outline = [0, 1, 3, 2].map((n) => `${points[n]!.x},${points[n]!.y}`).join(" ");
  const above = turnHandle(rect, size, ABOVE_PX);
  const hands = { onPointerMove: move, onPointerUp: end, onPointerCancel: end };
  return (
    <Drawing ref={drawing} role="group" aria-label={`Place of ${name}`}>
      <polygon className="under" points={outline} />
      <polygon
        points={outline}
        role="button"
        tabIndex={0}
        aria-label={`${name}: arrow keys move it, with Shift they size it`}
        onKeyDown={onKey}
        onPointerDown={(event) => begin("move", event)}
        {...hands}
      />
      {CORNERS.map((corner, n) => (
        <rect
          key={corner}
          data-handle={corner}
          x={points[n]!.x - CORNER_PX / 2}
          y={points[n]!.y - CORNER_PX / 2}
          width={CORNER_PX}
          height={CORNER_PX}
          onPointerDown={(event) => begin(corner, event)}
          {...hands}
        />
      ))}
      <circle
        data-handle="turn"
        cx={above.x}
        cy={above.y}
        r={6}
        onPointerDown={(event) => begin("turn", event)}
        {...hands}
      />
    </Drawing>
  );
}
