import { useState } from "react";
import styled from "styled-components";

import { useCueEdits, type CueList } from "../../../api/cues";
import type { Schemas } from "../../../api/client";
import { desk } from "../../../state";
import { LANE_PX, ROW_PX, rowAt } from "../cues";

const Picture = styled.svg`
  position: absolute;
  top: 0;
  right: 10px;
  pointer-events: none;
  overflow: visible;
  touch-action: none;
  g {
    pointer-events: auto;
    cursor: pointer;
    outline: none;
  }
  .wide {
    stroke: transparent;
    stroke-width: 16;
  }
  .line {
    stroke: var(--quiet);
    stroke-width: 2;
  }
  .end {
    cursor: ns-resize;
  }
  g:hover .line,
  g:focus-visible .line,
  g[data-dragged] .line {
    stroke: var(--bone);
    stroke-width: 3;
  }
  .name {
    font: 600 13px var(--words);
    fill: var(--bone);
    paint-order: stroke;
    stroke: var(--ink);
    stroke-width: 5;
    text-anchor: end;
    visibility: hidden;
    pointer-events: none;
  }
  g:hover .name,
  g:focus-visible .name,
  g[data-dragged] .name {
    visibility: visible;
  }
`;

type Thread = Schemas["ThreadView"];
interface Drag {
  thread: number;
  end: "begins" | "ends";
  from: number;
  row: number;
}
interface Props {
  list: CueList;
  lanes: Map<number, number>;
  right: number;
}

const middle = (row: number) => row * ROW_PX + ROW_PX / 2;

/** Effects as threads: each a line from the cue that starts it to the one that stops it. Its ends can be dragged to other cues. */
export function Threads({ list, lanes, right }: Props) {
  const edits = useCueEdits();
  const [drag, setDrag] = useState<Drag | null>(null);
  const { rows, threads } = list;
  const height = rows.length * ROW_PX;

  function begin(event: React.PointerEvent, one: Thread, end: Drag["end"]) {
    if (event.button) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const row = end === "begins" ? one.begins : one.ends < 0 ? rows.length - 1 : one.ends;
    setDrag({ thread: one.thread, end, from: event.clientY - middle(row), row });
  }
  function move(event: React.PointerEvent) {
    if (drag) setDrag({ ...drag, row: rowAt(0, event.clientY - drag.from - ROW_PX / 2, rows.length) });
  }
  function letGo() {
    const one = threads.find((thread) => thread.thread === drag?.thread);
    setDrag(null);
    if (!one || !drag) return;
    const begins = drag.end === "begins" ? drag.row : one.begins;
    const ends = drag.end === "ends" ? drag.row : one.ends;
    if (begins === one.begins && ends === one.ends) return;
    void edits.thread(list.id, one.thread, {
      begins: rows[begins]!.id,
      ends: ends < 0 ? null : rows[ends]!.id,
    });
  }
  return (
    <Picture
      width={right}
      height={height}
      aria-label="Effects"
      onPointerMove={move}
      onPointerUp={letGo}
      onPointerCancel={() => setDrag(null)}
    >
      {threads.map((one) => {
        const x = 14 + (lanes.get(one.thread) ?? 0) * LANE_PX;
        const dragged = drag?.thread === one.thread ? drag : null;
        const first = dragged?.end === "begins" ? dragged.row : one.begins;
        const last = dragged?.end === "ends" ? dragged.row : one.ends;
        const bottom = last < 0 ? height - 4 : middle(last);
        const until = last < 0 ? "runs on" : `to cue ${rows[last]?.number}`;
        return (
          <g
            key={one.thread}
            role="button"
            tabIndex={0}
            aria-label={`${one.name}, from cue ${rows[first]?.number}, ${until}`}
            data-dragged={dragged ? true : undefined}
            onPointerDown={(event) => event.stopPropagation()}
            onDoubleClick={() => {
              desk.open(one.effect_id, `list:${list.id}:${one.thread}`);
              desk.show("effects");
            }}
          >
            <title>
              {one.name}: {one.sentence}
            </title>
            <line className="wide" x1={x} x2={x} y1={middle(first)} y2={bottom} />
            <line
              className="line"
              x1={x}
              x2={x}
              y1={middle(first)}
              y2={bottom}
              strokeDasharray={last < 0 ? "none" : undefined}
            />
            {one.changes.map((row) => (
              <rect
                key={row}
                x={x - 3.5}
                y={middle(row) - 3.5}
                width={7}
                height={7}
                transform={`rotate(45 ${x} ${middle(row)})`}
                fill="var(--bone)"
              />
            ))}
            <circle
              className="end"
              cx={x}
              cy={middle(first)}
              r={5}
              fill="var(--bone)"
              onPointerDown={(event) => begin(event, one, "begins")}
            />
            <rect
              className="end"
              x={x - 4.5}
              y={bottom - 4.5}
              width={9}
              height={9}
              fill="var(--ink)"
              stroke="var(--bone)"
              strokeWidth={1.5}
              strokeDasharray={last < 0 ? "2 2" : undefined}
              onPointerDown={(event) => begin(event, one, "ends")}
            />
            <text className="name" x={x - 10} y={middle(first) + 4}>
              {one.name}
            </text>
          </g>
        );
      })}
    </Picture>
  );
}
