import { useState } from "react";
import styled from "styled-components";

import { Button } from "../../../../ui/Button";
import type { SlotProps } from "./Slot";
import { boxOf, nearestPoint, placed, toUnit, type XY } from "./curves";

const Panel = styled.div`
  display: grid;
  gap: 8px;
`;
const Plot = styled.svg`
  border: 1px solid var(--edge);
  background: var(--deep);
  touch-action: none;
  cursor: crosshair;
  polyline,
  polygon {
    fill: none;
    stroke: var(--stage-bone);
    stroke-width: 1.5;
    stroke-dasharray: 3 3;
  }
  circle {
    fill: var(--stage-bone);
  }
  circle[data-active] {
    stroke: var(--stage-bone);
    stroke-width: 6;
    stroke-opacity: 0.4;
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  font-size: 14px;
  gap: 8px;
  align-items: center;
`;
const USUAL_SIZE = { x: 380, y: 220 };
const PAD = 14;

/** Points of a curve or a drawn path: click to add, drag to move, then remove the one that is marked. */
export function CurveSlot({
  part,
  editor,
  size = USUAL_SIZE,
}: SlotProps & { size?: { x: number; y: number } }) {
  const isCurve = part.kind === "curve";
  const kept = part.value as XY[];
  const [held, setHeld] = useState<XY[] | null>(null);
  const points = held ?? kept;
  const [active, setActive] = useState(0);
  // the frame of a drawn path stays still while a point moves
  const box = isCurve ? { low: { x: 0, y: 0 }, high: { x: 1, y: 1 } } : boxOf(kept);
  const change = (value: XY[]) => ({ operation: "set" as const, path: part.slot!, value });

  function at(event: React.PointerEvent<SVGSVGElement>): XY {
    const frame = event.currentTarget.getBoundingClientRect();
    return toUnit({ x: event.clientX - frame.left, y: event.clientY - frame.top }, box, size, PAD);
  }
  function move(point: XY) {
    const next = placed(points, active, point, isCurve);
    setHeld(next);
    editor.preview(change(next));
  }
  function down(event: React.PointerEvent<SVGSVGElement>) {
    event.currentTarget.setPointerCapture(event.pointerId);
    const point = at(event);
    const near = nearestPoint(points, point, box);
    if (near !== null) setActive(near);
    let next = points;
    if (near === null && points.length < 64) {
      const where = isCurve ? points.findIndex(([x]) => x > point[0]) : points.length;
      const index = where < 0 ? points.length : where;
      next = [...points.slice(0, index), point, ...points.slice(index)];
      setActive(index);
    }
    setHeld(next);
  }
  function up() {
    if (!held) return;
    setHeld(null);
    void editor.commit(change(held));
  }
  const drawn = points.map(([x, y]) => {
    const width = box.high.x - box.low.x;
    const height = box.high.y - box.low.y;
    return [
      PAD + ((x - box.low.x) / width) * (size.x - 2 * PAD),
      size.y - PAD - ((y - box.low.y) / height) * (size.y - 2 * PAD),
    ] as XY;
  });
  const line = drawn.map((point) => point.join(",")).join(" ");
  return (
    <Panel>
      <Plot
        role="img"
        width={size.x}
        height={size.y}
        aria-label={`${points.length} points`}
        viewBox={`0 0 ${size.x} ${size.y}`}
        onPointerDown={down}
        onPointerMove={(event) => held && move(at(event))}
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
