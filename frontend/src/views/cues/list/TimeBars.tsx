import { useState } from "react";
import styled from "styled-components";

import { useCueEdits, type CueRow } from "../../../api/cues";
import type { Schemas } from "../../../api/client";
import { barOf, draggedTimes, FAMILIES, FAMILY_TITLES, ROW_PX, seconds, timesOf, type Grip } from "../cues";

const Picture = styled.svg`
  display: block;
  overflow: visible;
  touch-action: none;
  .grip {
    cursor: ew-resize;
    fill: transparent;
  }
  .grip:hover {
    fill: color-mix(in srgb, var(--bone) 35%, transparent);
  }
  text {
    font: 12px var(--numbers);
    fill: var(--bone);
    pointer-events: none;
  }
`;
const BAR_PX = 6;
const PITCH_PX = 9;
const TOP_PX = 5;
const GRIP_PX = 10;

type Bar = Schemas["BarView"];
interface Drag {
  family: Bar["family"];
  grip: Grip;
  from: number;
  at: number;
}
interface Props {
  row: CueRow;
  end: number;
  width: number;
}

/** The times of a cue: a bar for each family in which it does something, from delay to the end of its fade. */
export function TimeBars({ row, end, width }: Props) {
  const edits = useCueEdits();
  const [drag, setDrag] = useState<Drag | null>(null);
  const [kept, setKept] = useState<{ of: CueRow; times: ReturnType<typeof timesOf> } | null>(null);
  const left = (s: number) => (s / end) * width;
  const own = kept?.of === row ? kept.times : timesOf(row.times); // until the answer is there
  const times = drag ? draggedTimes(own, drag.family, drag.grip, drag.at) : own;

  function begin(event: React.PointerEvent, family: Bar["family"], grip: Grip, at: number) {
    if (event.button) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ family, grip, from: event.clientX - left(at), at });
  }
  function move(event: React.PointerEvent) {
    if (drag) setDrag({ ...drag, at: Math.max(0, ((event.clientX - drag.from) / width) * end) });
  }
  function letGo() {
    if (!drag) return;
    setDrag(null);
    if (JSON.stringify(times) === JSON.stringify(own)) return;
    setKept({ of: row, times });
    void edits.change(row.id, { times });
  }
  const slot = (family: Bar["family"]) => TOP_PX + FAMILIES.indexOf(family) * PITCH_PX;
  const words = row.bars
    .map((bar) => `${FAMILY_TITLES[bar.family]} ${seconds(bar.begin)} to ${seconds(bar.end)} s`)
    .join(", ");
  return (
    <Picture
      width={width}
      height={ROW_PX - 1}
      role="img"
      aria-label={words || "does nothing in time"}
      onPointerMove={move}
      onPointerUp={letGo}
      onPointerCancel={() => setDrag(null)}
    >
      <line x1={0.5} x2={0.5} y1={0} y2={ROW_PX} stroke="var(--line)" />
      {row.bars.map((one) => {
        const bar = barOf(one, times);
        const y = slot(bar.family);
        const grips: { grip: Grip; at: number; y: number; height: number }[] =
          bar.family === "intensity" && bar.up !== bar.down
            ? [
                { grip: "up", at: bar.up, y: y - 1, height: BAR_PX / 2 + 1 },
                { grip: "down", at: bar.down, y: y + BAR_PX / 2, height: BAR_PX / 2 + 1 },
              ]
            : [{ grip: "end", at: bar.end, y: y - 1, height: BAR_PX + 2 }];
        return (
          <g key={bar.family}>
            <Shape bar={bar} left={left} y={y} />
            {drag?.family === bar.family && (
              <text x={left(drag.at) + 10} y={y + 8}>
                {seconds(drag.at)} s
              </text>
            )}
            {left(bar.end) - left(bar.begin) > GRIP_PX * 2 && (
              <rect
                className="grip"
                x={left(bar.begin) - GRIP_PX / 2}
                y={y - 1}
                width={GRIP_PX}
                height={BAR_PX + 2}
                onPointerDown={(event) => begin(event, bar.family, "delay", bar.begin)}
              />
            )}
            {grips.map(({ grip, at, y: top, height }) => (
              <rect
                key={grip}
                className="grip"
                data-grip={`${bar.family} ${grip}`}
                x={left(at) - GRIP_PX / 2}
                y={top}
                width={GRIP_PX}
                height={height}
                onPointerDown={(event) => begin(event, bar.family, grip, at)}
              />
            ))}
          </g>
        );
      })}
    </Picture>
  );
}

/** A bar in the texture of its family; one that takes no time is a stroke. */
function Shape({ bar, left, y }: { bar: Bar; left: (s: number) => number; y: number }) {
  const from = left(bar.begin);
  const long = (to: number) => Math.max(left(to) - from, 2);
  if (bar.family === "intensity") {
    return (
      <g fill="var(--bone)">
        <rect x={from} y={y} width={long(bar.up)} height={BAR_PX / 2} />
        <rect x={from} y={y + BAR_PX / 2} width={long(bar.down)} height={BAR_PX / 2} />
      </g>
    );
  }
  if (bar.family === "beam")
    return (
      <rect
        x={from + 0.5}
        y={y + 0.5}
        width={Math.max(long(bar.end) - 1, 1)}
        height={BAR_PX - 1}
        fill="none"
        stroke="var(--bone)"
      />
    );
  return <rect x={from} y={y} width={long(bar.end)} height={BAR_PX} fill={`url(#texture-${bar.family})`} />;
}
