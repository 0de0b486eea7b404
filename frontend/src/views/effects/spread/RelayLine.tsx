import { useRef } from "react";
import styled from "styled-components";

import { handoverFor, type Lane } from "./spread";
import type { Editor } from "../editor/useEditor";

const Picture = styled.svg`
  width: 100%;
  background: var(--stage-ground);
  touch-action: none;
  display: block;
  rect {
    fill: var(--stage-bone);
    cursor: ew-resize;
  }
  rect[data-again] {
    fill: none;
    stroke: var(--stage-edge);
    stroke-dasharray: 2 2;
  }
  g:focus-visible {
    outline: none;
  }
  g:focus-visible rect {
    stroke: var(--stage-bone);
    stroke-width: 3;
    fill: var(--stage-quiet);
  }
  line {
    stroke: var(--stage-wire);
  }
  text {
    fill: var(--stage-quiet);
    font: 12px var(--numbers);
    dominant-baseline: central;
    pointer-events: none;
  }
`;
const WIDTH = 244;
const LEFT = 26;
const MOST_LANES = 12;

interface Props {
  editor: Editor;
  lanes: Lane[];
  handover: number;
  /** Turns until lane 1 begins again. */
  circuit: number;
}

/** Turns on a line, one bar a lane: how far they overlap, and when lane 1 begins again. */
export function RelayLine({ editor, lanes, handover, circuit }: Props) {
  const held = useRef<{ lane: number; grabbed: number; value: number; moved: boolean } | null>(null);
  const shown = lanes.slice(0, MOST_LANES);
  const end = Math.max(circuit + 1, (shown.at(-1)?.offset ?? 0) + 1);
  const each = shown.length > 8 ? 13 : 18;
  const perTurn = (WIDTH - LEFT - 6) / end;
  const height = shown.length * each + 12;
  const change = (value: number) => ({ operation: "set" as const, path: "spread.handover", value });
  const turnsAt = (event: React.PointerEvent) => {
    const box = event.currentTarget.closest("svg")!.getBoundingClientRect();
    return (((event.clientX - box.left) / box.width) * WIDTH - LEFT) / perTurn;
  };
  return (
    <Picture
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="group"
      aria-label="Turns on a line"
      onPointerMove={(event) => {
        const now = held.current;
        if (!now) return;
        const value = handoverFor(turnsAt(event) - now.grabbed, now.lane);
        if (value === now.value) return;
        now.value = value;
        now.moved = true;
        editor.preview(change(value));
      }}
      onPointerUp={() => {
        const now = held.current;
        held.current = null;
        if (now?.moved) void editor.commit(change(now.value));
      }}
    >
      {shown.map(({ lane, offset }, row) => {
        const y = 6 + row * each;
        const can = lane > 0;
        return (
          <g
            key={lane}
            role="slider"
            tabIndex={can ? 0 : -1}
            aria-label={`Handover, by lane ${lane + 1}`}
            aria-disabled={!can}
            aria-valuemin={0.01}
            aria-valuemax={1}
            aria-valuenow={handover}
            aria-valuetext={`${Math.round(handover * 100)} % handover`}
            onPointerDown={(event) => {
              if (!can) return;
              event.currentTarget.setPointerCapture(event.pointerId);
              held.current = { lane, grabbed: turnsAt(event) - offset, value: handover, moved: false };
            }}
            onKeyDown={(event) => {
              const way = { ArrowRight: 0.01, ArrowUp: 0.01, ArrowLeft: -0.01, ArrowDown: -0.01 }[event.key];
              if (!way || !can) return;
              event.preventDefault();
              void editor.commit(change(Math.min(Math.max(Number((handover + way).toFixed(2)), 0.01), 1)));
            }}
          >
            <text x={4} y={y + each / 2}>
              {lane + 1}
            </text>
            <rect x={LEFT + offset * perTurn} y={y + 2} width={perTurn} height={each - 4} />
            <rect
              data-again=""
              x={LEFT + (offset + circuit) * perTurn}
              y={y + 2}
              width={Math.max(0, Math.min(perTurn, WIDTH - LEFT - (offset + circuit) * perTurn))}
              height={each - 4}
            />
          </g>
        );
      })}
      <line x1={LEFT + circuit * perTurn} x2={LEFT + circuit * perTurn} y1={0} y2={height} />
    </Picture>
  );
}
