import { memo, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { onEveryFrame } from "../../../live/loop";
import { runningOf, shownTheta } from "../../../live/socket";
import { desk } from "../../../state";
import { STAGE } from "../../../theme/tokens";
import { ticks, valueAt, wovenBy, weaveCanvas, weaveImage } from "./pixels";

const Frame = styled.figure`
  margin: 0;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  column-gap: 8px;
  flex: 1;
  min-height: 110px;
  grid-template-rows: auto minmax(64px, 1fr) 22px;
`;
const Caption = styled.figcaption`
  grid-column: 1 / 3;
  display: flex;
  justify-content: space-between;
  color: var(--quiet);
  font-size: 14px;
  line-height: 1.3;
  padding-bottom: 4px;
  gap: 8px;
  white-space: nowrap;
  > :first-child {
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;
const Names = styled.div`
  display: flex;
  flex-direction: column;
  font: 12px var(--numbers);
  color: var(--quiet);
  text-align: right;
  span {
    flex: 1;
    display: flex;
    align-items: center;
    justify-content: flex-end;
    min-height: 0;
    line-height: 1;
  }
`;
const Field = styled.div`
  position: relative;
  background: var(--deep);
  cursor: pointer;
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    image-rendering: pixelated;
  }
`;
const Head = styled.div`
  position: absolute;
  top: -3px;
  bottom: -3px;
  width: 2px;
  background: var(--bone);
  left: 0;
  will-change: transform;
  pointer-events: none;
  box-shadow: 0 0 0 1px var(--ink);
`;
const Axis = styled.div`
  grid-column: 2;
  position: relative;
  font: 12px var(--numbers);
  color: var(--quiet);
  span {
    position: absolute;
    transform: translateX(-50%);
    top: 4px;
    white-space: nowrap;
  }
  span:first-child {
    transform: none;
  }
  span:last-child {
    transform: translateX(-100%);
  }
`;
const NAME_HEIGHT = 12;
const MOST_SKIPPED = 8;
const GAP = 2;

/** The heads by their rows; only so many are named as can be read. heads: their keys, in one text. */
const HeadNames = memo(function HeadNames({ heads, every }: { heads: string; every: number }) {
  return (
    <Names aria-hidden="true">
      {every <= MOST_SKIPPED &&
        heads.split(" ").map((head, n) => <span key={`${head} ${n}`}>{n % every === 0 && head}</span>)}
    </Names>
  );
});

interface Props {
  weave: Schemas["WeaveView"];
  runKey: string | null;
  /** The first layer that acts: the line of now goes by it. */
  layer?: number;
  /** The stretch of cycles that shows now has changed (θ at its start): for effects that never repeat. */
  onWindow: ((start: number) => void) | null;
  /** Said before the heads, where two are compared. */
  name?: string;
}

/** Heads against time: direction, evenness, pairs and speed at one look. The line is now. */
export function Weave({ weave, runKey, layer = 0, onWindow, name = "" }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const line = useRef<HTMLDivElement>(null);
  const field = useRef<HTMLDivElement>(null);
  const [told, setTold] = useState("");
  const rows = weave.heads.length;
  const image = useMemo(() => weaveImage(weave), [weave]);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const width = useRef(0);

  useEffect(() => {
    const seen = new ResizeObserver(([entry]) => {
      const { width: wide, height } = entry!.contentRect;
      width.current = wide;
      setSize({ width: wide, height });
    });
    seen.observe(field.current!);
    return () => seen.disconnect();
  }, []);

  useLayoutEffect(() => {
    const element = canvas.current!;
    const ratio = devicePixelRatio;
    // as many pixels as are seen: then the screen copies it, and scales nothing in each frame
    element.width = Math.max(Math.round(size.width * ratio), 1);
    element.height = Math.max(Math.round(size.height * ratio), 1);
    const context = element.getContext("2d", { alpha: false })!;
    context.fillStyle = STAGE.ground;
    context.fillRect(0, 0, element.width, element.height);
    context.imageSmoothingEnabled = false;
    const small = weaveCanvas(image);
    const each = element.height / rows;
    const gap = each > 3 * GAP * ratio ? GAP * ratio : 0;
    if (!gap) context.drawImage(small, 0, 0, element.width, element.height);
    else
      for (let row = 0; row < rows; row++) {
        const [top, end] = [Math.round(row * each), Math.round((row + 1) * each)];
        context.drawImage(small, 0, row, image.width, 1, 0, top, element.width, end - top - gap);
      }
  }, [image, rows, size]);

  useEffect(() => {
    let before: number | null = null;
    return onEveryFrame(() => {
      const running = runKey ? runningOf(runKey) : null;
      const mark = line.current!;
      mark.hidden = !running;
      if (!running) return;
      const theta = shownTheta(running.theta, runKey!, layer);
      const at = theta - weave.start;
      const share = (((at / weave.cycles) % 1) + 1) % 1;
      mark.style.transform = `translateX(${share * width.current}px)`;
      const start = Math.floor(theta / weave.cycles) * weave.cycles;
      if (!weave.repeats && start !== before && Math.abs(start - weave.start) > 1e-9) onWindow?.(start);
      before = start;
    });
  }, [runKey, weave, layer, onWindow]);

  const byBeats = weave.beats !== null && weave.beats !== undefined;
  const marks = ticks(byBeats ? weave.beats! : weave.seconds, byBeats ? "beat" : "s");
  const seconds = `${Math.round(weave.seconds * 100) / 100} s`;
  const namedEvery = Math.ceil((rows * NAME_HEIGHT) / Math.max(size.height, 1));
  function place(event: React.PointerEvent) {
    const box = field.current!.getBoundingClientRect();
    const row = Math.min(rows - 1, Math.max(0, Math.floor(((event.clientY - box.top) / box.height) * rows)));
    const share = Math.min(1, Math.max(0, (event.clientX - box.left) / box.width));
    return { row, share };
  }
  return (
    <Frame>
      <Caption>
        <span>
          {name && `${name}, `}
          {rows} head{rows === 1 ? "" : "s"} in {weave.count} lane{weave.count === 1 ? "" : "s"}
          {wovenBy(weave.attribute)}
        </span>
        <span>
          {told || (byBeats ? `${Math.round(weave.beats! * 100) / 100} beats, ${seconds}` : seconds)}
        </span>
      </Caption>
      <HeadNames heads={weave.heads.join(" ")} every={namedEvery} />
      <Field
        ref={field}
        role="img"
        aria-label={`Weave${name && ` of ${name}`}: ${rows} heads in ${weave.count} lanes over ${seconds}`}
        onPointerMove={(event) => {
          const { row, share } = place(event);
          const at = byBeats
            ? `beat ${(share * weave.beats!).toFixed(2)}`
            : `${(share * weave.seconds).toFixed(2)} s`;
          setTold(`head ${weave.heads[row]}, ${at}: ${valueAt(weave, image.data, row, share)}`);
        }}
        onPointerLeave={() => setTold("")}
        onClick={(event) => desk.select([weave.heads[place(event as unknown as React.PointerEvent).row]!])}
      >
        <canvas ref={canvas} />
        <Head ref={line} />
      </Field>
      <Axis aria-hidden="true">
        {marks.map((tick) => (
          <span key={tick.share} style={{ left: `${tick.share * 100}%` }}>
            {tick.text}
          </span>
        ))}
      </Axis>
    </Frame>
  );
}
