import { useEffect, useRef } from "react";
import styled from "styled-components";

import { onEveryFrame } from "../live/loop";
import { act, runningOf, toldRunning, useLivePart } from "../live/socket";
import { desk } from "../state";
import { AdjustTools } from "./AdjustTools";
import { Chip, LiveWords } from "./Chip";
import { liveWords } from "./liveWords";

const Trace = styled.canvas`
  width: 36px;
  height: 24px;
  margin-left: 8px;
  flex: none;
`;
const SAMPLES = 36;
const TRACE_MS = 100;

/** A small live trace: what the first light that it moves does, over the last seconds. */
function LiveTrace({ runKey }: { runKey: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const past = useRef<number[]>([]);
  useEffect(() => {
    const element = canvas.current!;
    const context = element.getContext("2d")!;
    let before = -1;
    return onEveryFrame((now) => {
      if (now - before < TRACE_MS) return;
      before = now;
      const running = runningOf(runKey);
      if (running) past.current.push(running.value);
      past.current = past.current.slice(-SAMPLES);
      context.clearRect(0, 0, SAMPLES * 2, 48);
      context.strokeStyle = getComputedStyle(element).color; // of the theme as it is now
      context.lineWidth = 2;
      context.beginPath();
      past.current.forEach((value, n) =>
        context.lineTo((SAMPLES - past.current.length + n) * 2, 45 - value * 42),
      );
      context.stroke();
    });
  }, [runKey]);
  return <Trace ref={canvas} width={SAMPLES * 2} height={48} aria-hidden="true" />;
}

/** An effect that runs: rendered anew only when something of its own changes, however often the state is told. */
export function RunningChip({ runKey }: { runKey: string }) {
  const chip = useLivePart((state) => {
    const told = state?.running.find((one) => one.key === runKey);
    if (!told) return null;
    const { effect_id, name, source, stopping, depth = 1, speed = 1 } = told;
    return { key: runKey, effect_id, name, source, stopping, depth, speed };
  });
  if (!chip) return null;
  const level = () => {
    const now = toldRunning(runKey)?.level ?? 1;
    return now < 1 ? ` · ${Math.round(now * 100)} %` : "";
  };
  return (
    <Chip
      name={chip.name}
      picture={<LiveTrace runKey={runKey} />}
      from={
        <>
          {chip.source}
          <LiveWords words={level} />
          {chip.stopping ? " · fading out" : ""}
          <b>{liveWords(chip.depth, chip.speed)}</b>
        </>
      }
      isFading={chip.stopping}
      onOpen={() => {
        desk.open(chip.effect_id, runKey);
        desk.show("effects");
      }}
      tools={!chip.stopping && <AdjustTools running={chip} />}
      stop={{ label: `Stop ${chip.name}`, does: () => act({ do: "stop", key: runKey }) }}
    />
  );
}
