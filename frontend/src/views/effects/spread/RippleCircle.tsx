import { useEffect, useRef } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { onEveryFrame } from "../../../live/loop";
import { runningOf, shownTheta } from "../../../live/socket";
import { useDesk } from "../../../state";
import { follow, onCircle, ownOffset, phaseAt, spreadFor, type Lane } from "./spread";
import type { Editor } from "../editor/useEditor";

const Picture = styled.svg`
  width: 100%;
  height: 190px;
  background: var(--stage-ground);
  touch-action: none;
  display: block;
  .ring {
    fill: none;
    stroke: var(--stage-wire);
  }
  .spoke {
    stroke: var(--stage-edge);
  }
  .hand {
    stroke: var(--stage-bone);
    stroke-width: 2;
  }
  .head {
    fill: var(--stage-bone);
    stroke: var(--stage-ground);
    cursor: grab;
  }
  .head[data-own] {
    fill: var(--stage-ground);
    stroke: var(--stage-bone);
    stroke-width: 2;
  }
  .head[data-out] {
    fill: none;
    stroke: var(--stage-edge);
    stroke-dasharray: 2 2;
  }
  .head[data-chosen] {
    stroke: var(--stage-bone);
    stroke-width: 2;
    r: 8px;
  }
  g[role="slider"] {
    cursor: grab;
  }
  g[role="slider"] rect {
    fill: var(--stage-ink);
    stroke: var(--stage-edge);
  }
  g[role="slider"]:hover rect,
  g[role="slider"]:focus-visible rect {
    stroke: var(--stage-bone);
    stroke-width: 2;
  }
  g[role="slider"]:focus-visible {
    outline: none;
  }
  text {
    fill: var(--stage-bone);
    font: 12px var(--numbers);
    text-anchor: middle;
    dominant-baseline: central;
    pointer-events: none;
    user-select: none;
  }
`;
const CENTRE = { x: 122, y: 95 };
const LANES_AT = 54;
const HEADS_AT = 80;
const MOST_LANES = 16;

interface Props {
  editor: Editor;
  weave: Schemas["WeaveView"];
  lanes: Lane[];
  chosen: string | null;
  onChoose: (head: string) => void;
}

/** Lanes and heads on the circle of the cycle, with a hand for now. Lane numbers set the spread, dots a head's own offset. */
export function RippleCircle({ editor, weave, lanes, chosen, onChoose }: Props) {
  const held = useRef<{
    phase: number;
    value: number;
    lane?: Lane;
    head?: string;
    lanePhase: number;
    moved: boolean;
  } | null>(null);
  const runKey = useDesk((state) => state.effect?.key ?? null);
  const hand = useRef<SVGLineElement>(null);
  const own = (editor.effect.document.own ?? {}) as Record<string, { left_out?: boolean; offset?: number }>;
  const layer = weave.scopes[0]?.layer ?? 0;
  const degrees = Number((editor.effect.document.spread as { degrees?: number }).degrees ?? 360);

  useEffect(
    () =>
      onEveryFrame(() => {
        const running = runKey ? runningOf(runKey) : null;
        const line = hand.current;
        if (!line) return;
        line.style.display = running ? "" : "none";
        if (!running) return;
        const { x, y } = onCircle(shownTheta(running.theta, runKey!, layer) % 1, HEADS_AT + 10, CENTRE);
        line.setAttribute("x2", String(x));
        line.setAttribute("y2", String(y));
      }),
    [runKey, layer],
  );

  const point = (event: React.PointerEvent) => {
    const box = event.currentTarget.closest("svg")!.getBoundingClientRect();
    return phaseAt(
      {
        x: event.clientX - box.left - box.width / 2 + CENTRE.x,
        y: event.clientY - box.top - box.height / 2 + CENTRE.y,
      },
      CENTRE,
    );
  };
  const spreadChange = (value: number) => ({ operation: "set" as const, path: "spread.degrees", value });
  const ownChange = (head: string, offset: number) => ({
    operation: "set-own" as const,
    path: head,
    value: { offset },
  });
  function change() {
    const now = held.current!;
    return now.head !== undefined ? ownChange(now.head, now.value) : spreadChange(now.value);
  }
  function take(event: React.PointerEvent, what: { lane: Lane } | { head: string; lanePhase: number }) {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    if ("lane" in what)
      held.current = { lane: what.lane, phase: what.lane.offset, value: degrees, lanePhase: 0, moved: false };
    else {
      onChoose(what.head);
      held.current = {
        head: what.head,
        phase: what.lanePhase,
        value: own[what.head]?.offset ?? 0,
        lanePhase: what.lanePhase,
        moved: false,
      };
    }
  }
  function move(event: React.PointerEvent) {
    const now = held.current;
    if (!now) return;
    now.phase = follow(now.phase, point(event));
    const value = now.lane ? spreadFor(now.phase, now.lane.share) : ownOffset(now.phase, now.lanePhase);
    if (value === now.value) return;
    now.value = value;
    now.moved = true;
    editor.preview(change());
  }
  function drop() {
    const now = held.current;
    if (!now) return;
    const next = change();
    held.current = null;
    if (now.moved) void editor.commit(next);
  }
  const placed = lanes.filter(
    (_, n) => lanes.length <= MOST_LANES || n % Math.ceil(lanes.length / MOST_LANES) === 0,
  );
  return (
    <Picture
      viewBox="0 0 244 190"
      onPointerMove={move}
      onPointerUp={drop}
      role="group"
      aria-label="Spread on a circle"
    >
      <circle className="ring" cx={CENTRE.x} cy={CENTRE.y} r={HEADS_AT} />
      {lanes.map(({ lane, offset }) => {
        const end = onCircle(offset, HEADS_AT, CENTRE);
        return <line key={lane} className="spoke" x1={CENTRE.x} y1={CENTRE.y} x2={end.x} y2={end.y} />;
      })}
      <line ref={hand} className="hand" x1={CENTRE.x} y1={CENTRE.y} x2={CENTRE.x} y2={CENTRE.y} />
      {weave.heads.map((head, n) => {
        const { x, y } = onCircle(weave.offsets[n]!, HEADS_AT, CENTRE);
        const lanePhase = (weave.shares[weave.lanes[n]!] ?? 0) * (degrees / 360);
        return (
          <circle
            key={`${head} ${n}`}
            className="head"
            cx={x}
            cy={y}
            r={weave.heads.length > 40 ? 3 : 5.5}
            data-head={head}
            data-own={own[head]?.offset ? "" : undefined}
            data-out={own[head]?.left_out ? "" : undefined}
            data-chosen={head === chosen ? "" : undefined}
            onPointerDown={(event) => take(event, { head, lanePhase })}
          >
            <title>{`Head ${head}`}</title>
          </circle>
        );
      })}
      {placed.map((one) => {
        const { x, y } = onCircle(one.offset, LANES_AT, CENTRE);
        const fixed = one.share === 0;
        return (
          <g
            key={one.lane}
            role="slider"
            tabIndex={fixed ? -1 : 0}
            aria-label={`Spread, by lane ${one.lane + 1}`}
            aria-disabled={fixed}
            aria-valuemin={-720}
            aria-valuemax={720}
            aria-valuenow={degrees}
            aria-valuetext={`${degrees}°; lane ${one.lane + 1} at ${Math.round(one.offset * 360)}°`}
            onPointerDown={(event) => !fixed && take(event, { lane: one })}
            onKeyDown={(event) => {
              const way = { ArrowRight: 5, ArrowUp: 5, ArrowLeft: -5, ArrowDown: -5 }[event.key];
              if (!way || fixed) return;
              event.preventDefault();
              void editor.commit(spreadChange(Math.min(Math.max(degrees + way, -720), 720)));
            }}
          >
            <rect x={x - 10} y={y - 9} width={20} height={18} rx={2} />
            <text x={x} y={y}>
              {one.lane + 1}
            </text>
          </g>
        );
      })}
    </Picture>
  );
}
