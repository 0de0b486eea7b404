import { useState, type PointerEvent } from "react";
import styled from "styled-components";

import type { Pair } from "../../../api/rerig";
import { useSize } from "../../../ui/useSize";
import { along, nearest, standsFor, withMatch } from "./match";

const Drawing = styled.svg`
  width: 100%;
  height: 116px;
  background: var(--deep);
  touch-action: none;
  circle {
    fill: transparent;
    stroke: #efe7d8;
    stroke-width: 1.5;
  }
  circle[data-idle] {
    stroke: #867c6f;
    stroke-dasharray: 2 3;
  }
  [role="slider"] {
    cursor: grab;
    outline: none;
  }
  [role="slider"]:focus-visible circle {
    fill: #efe7d8;
  }
  [role="slider"]:focus-visible text {
    fill: #14110e;
  }
  line {
    stroke: #c9bfae;
    stroke-width: 1.2;
    pointer-events: none;
  }
  line[data-held] {
    stroke-dasharray: 4 3;
  }
  text {
    fill: #efe7d8;
    font-family: var(--numbers);
    text-anchor: middle;
    pointer-events: none;
  }
`;
const TOP = 22;
const BOTTOM = 94;
const HEIGHT = 116;
const MOST_NUMBERS = 24;

interface Props {
  pair: Pair;
  match: readonly number[];
  onChange: (pair: Pair) => void;
}

/** The lights there were, above, and those that take over, below, with a line from each to the one it stands for. */
export function MatchDrawing({ pair, match, onChange }: Props) {
  const [{ width }, measure] = useSize();
  const [held, setHeld] = useState<{ light: number; at: number } | null>(null);
  const source = pair.source.numbers;
  const target = pair.target?.numbers ?? [];
  const x = (index: number, count: number) => along(index, count) * width;
  const radius = Math.min(17, (width / Math.max(source.length, target.length, 1)) * 0.42);
  const numbers = Math.max(source.length, target.length) <= MOST_NUMBERS;
  const used = new Set(match);
  const placeOf = (event: PointerEvent<SVGElement>) => {
    const box = (event.currentTarget.ownerSVGElement ?? event.currentTarget).getBoundingClientRect();
    return (event.clientX - box.left) / box.width;
  };
  const set = (light: number, from: number) => onChange(withMatch(pair, match, light, from));
  const size = radius * (String(Math.max(...source, ...target, 0)).length > 3 ? 0.62 : 0.78);
  return (
    <Drawing
      ref={measure}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      role="group"
      aria-label={`${source.length} lights of ${pair.source.name}, and ${target.length} that take over`}
      onPointerMove={(event) => held && setHeld({ ...held, at: placeOf(event) })}
      onPointerUp={() => {
        if (held) set(held.light, nearest(held.at, source.length));
        setHeld(null);
      }}
    >
      {target.map((_, n) => {
        const from = match[n] ?? -1;
        const end = held?.light === n ? held.at * width : from >= 0 ? x(from, source.length) : null;
        return (
          end !== null && (
            <line
              key={n}
              x1={end}
              y1={TOP + radius}
              x2={x(n, target.length)}
              y2={BOTTOM - radius}
              data-held={held?.light === n || undefined}
            />
          )
        );
      })}
      {source.map((number, n) => (
        <g key={number}>
          <circle cx={x(n, source.length)} cy={TOP} r={radius} data-idle={!used.has(n) || undefined} />
          {numbers && (
            <text x={x(n, source.length)} y={TOP + size * 0.36} fontSize={size}>
              {number}
            </text>
          )}
        </g>
      ))}
      {target.map((number, n) => {
        const from = match[n] ?? -1;
        return (
          <g
            key={number}
            role="slider"
            tabIndex={0}
            aria-label={`Light ${number}`}
            aria-valuemin={-1}
            aria-valuemax={source.length - 1}
            aria-valuenow={from}
            aria-valuetext={standsFor(number, source[from])}
            onPointerDown={(event) => {
              event.currentTarget.ownerSVGElement!.setPointerCapture(event.pointerId);
              setHeld({ light: n, at: placeOf(event) });
            }}
            onKeyDown={(event) => {
              const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
              if (event.key === "Delete") set(n, -1);
              else if (step === undefined) return;
              else set(n, Math.min(source.length - 1, Math.max(0, from + step)));
              event.preventDefault();
            }}
          >
            <circle cx={x(n, target.length)} cy={BOTTOM} r={radius} data-idle={from < 0 || undefined} />
            {numbers && (
              <text x={x(n, target.length)} y={BOTTOM + size * 0.36} fontSize={size}>
                {number}
              </text>
            )}
          </g>
        );
      })}
    </Drawing>
  );
}
