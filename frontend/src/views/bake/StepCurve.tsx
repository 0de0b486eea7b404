import styled from "styled-components";

import type { CurvePoint } from "../../api/bakes";
import { placeOf, withUnit } from "./bakeWords";

const Drawing = styled.svg`
  width: 100%;
  height: 150px;
  background: var(--deep);
  polyline {
    fill: none;
    stroke: #867c6f;
    stroke-width: 1.5;
  }
  circle {
    fill: #14110e;
    stroke: #efe7d8;
    stroke-width: 1.5;
  }
  [role="radio"] {
    cursor: pointer;
    outline: none;
  }
  [aria-checked="true"] circle,
  [role="radio"]:focus-visible circle {
    fill: #efe7d8;
  }
  text {
    fill: #efe7d8;
    font-size: 12px;
    text-anchor: middle;
  }
`;
const [WIDTH, HEIGHT, LEFT, TOP] = [640, 150, 46, 26];

interface Props {
  label: string;
  unit: string;
  points: readonly CurvePoint[];
  chosen: number | undefined;
  onChosen: (error: number) => void;
}

/** How many steps it takes for which error; one of them is taken. */
export function StepCurve({ label, unit, points, chosen, onChosen }: Props) {
  const at = points.map((point) => {
    const { x, y } = placeOf(point, points);
    return { ...point, x: LEFT + x * (WIDTH - 2 * LEFT), y: TOP + y * (HEIGHT - 2 * TOP - 14) };
  });
  return (
    <Drawing viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="radiogroup" aria-label={label}>
      <polyline points={at.map(({ x, y }) => `${x},${y}`).join(" ")} />
      {at.map(({ x, y, error, steps }) => (
        <g
          key={error}
          role="radio"
          tabIndex={0}
          aria-checked={chosen !== undefined && Math.abs(chosen - error) < 1e-9}
          aria-label={`${steps} steps, within ${withUnit(error, unit)}`}
          onClick={() => onChosen(error)}
          onKeyDown={(event) => (event.key === "Enter" || event.key === " ") && onChosen(error)}
        >
          <rect x={x - 40} y={0} width={80} height={HEIGHT} fill="transparent" />
          <circle cx={x} cy={y} r={6} />
          <text x={x} y={y - 12}>
            {steps.toLocaleString("en")}
          </text>
          <text x={x} y={HEIGHT - 8}>
            {withUnit(error, unit)}
          </text>
        </g>
      ))}
    </Drawing>
  );
}
