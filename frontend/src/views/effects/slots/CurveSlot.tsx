import { useRef, useState } from "react";
import styled from "styled-components";

import { Button } from "../../../ui/Button";
import type { SlotProps } from "./Slot";
import { boxOf, nearestPoint, placed, toUnit, type XY } from "./curves";

const Panel = styled.div`
  display: grid;
  gap: 8px;
`;
const Plot = styled.svg`
  width: 380px;
  height: 220px;
  border: 1px solid var(--edge);
  background: var(--deep);
  touch-action: none;
  cursor: crosshair;
  polyline,
  polygon {
    fill: none;
    stroke: #efe7d8;
    stroke-width: 1.5;
    stroke-dasharray: 3 3;
  }
  circle {
    fill: #efe7d8;
  }
  circle[data-active] {
    stroke: #efe7d8;
    stroke-width: 6;
    stroke-opacity: 0.4;
  }
`;
const Row = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
`;
const SIZE = { x: 380, y: 220 };
const PAD = 14;

/** Points of a curve or a drawn path: click to add, drag to move, then remove the one that is marked. */
export function CurveSlot({ part, editor }: SlotProps) {
  const isCurve = part.kind === "curve";
  const kept = part.value as XY[];
  const [points, setPoints] = useState(kept);
  const [active, setActive] = useState(0);
  const dragging = useRef(false);
  const box = isCurve ? { low: { x: 0, y: 0 }, high: { x: 1, y: 1 } } : boxOf(kept);
  const change = (value: XY[]) => ({ operation: "set" as const, path: part.slot!, value });

  function at(event: React.PointerEvent<SVGSVGElement>): XY {
    const frame = event.currentTarget.getBoundingClientRect();
    return toUnit({ x: event.clientX - frame.left, y: event.clientY - frame.top }, box, SIZE, PAD);
  }
  function move(point: XY) {
    const next = placed(points, active, point, isCurve);
    setPoints(next);
    editor.preview(change(next));
  }
  function down(event: React.PointerEvent<SVGSVGElement>) {
    event.currentTarget.setPointerCapture(event.pointerId);
    const point = at(event);
    const near = nearestPoint(points, point, box);
    if (near !== null) setActive(near);
    else if (points.length < 64) {
      const where = isCurve ? points.findIndex(([x]) => x > point[0]) : points.length;
      const index = where < 0 ? points.length : where;
      setPoints([...points.slice(0, index), point, ...points.slice(index)]);
      setActive(index);
    }
    dragging.current = true;
  }
  function up() {
    if (!dragging.current) return;
    dragging.current = false;
    void editor.commit(change(points));
  }
  const drawn = points.map(([x, y]) => {
    const width = box.high.x - box.low.x;
    const height = box.high.y - box.low.y;
    return [
      PAD + ((x - box.low.x) / width) * (SIZE.x - 2 * PAD),
      SIZE.y - PAD - ((y - box.low.y) / height) * (SIZE.y - 2 * PAD),
    ] as XY;
  });
  const line = drawn.map((point) => point.join(",")).join(" ");
  return (
    <Panel>
      <Plot
        role="img"
        aria-label={`${points.length} points`}
        viewBox={`0 0 ${SIZE.x} ${SIZE.y}`}
        onPointerDown={down}
        onPointerMove={(event) => dragging.current && move(at(event))}
        onPointerUp={up}
      >
        {isCurve ? <polyline points={line} /> : <polygon points={line} />}
        {drawn.map(([x, y], n) => (
          <circle key={n} cx={x} cy={y} r={5} data-active={n === active || undefined} />
        ))}
      </Plot>
      <Row>
        <span>Click to add a point, drag to move it.</span>
        <Button
          data-variant="small"
          isDisabled={points.length <= (isCurve ? 1 : 3)}
          onPress={() => {
            const next = points.filter((_, n) => n !== active);
            setPoints(next);
            setActive(Math.max(0, active - 1));
            void editor.commit(change(next));
          }}
        >
          Remove point {active + 1}
        </Button>
      </Row>
    </Panel>
  );
}
