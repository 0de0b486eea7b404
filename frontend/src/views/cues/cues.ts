import type { CueList, CueRow, Told } from "../../api/cues";
import type { Schemas } from "../../api/client";

export const ROW_PX = 46;
export const LANE_PX = 22;
const MOST_LANES = 8;
const STEPS_S = [0.5, 1, 2, 5, 10, 20, 30, 60, 120, 300, 600];
const LEAST_S = 4;

type Bar = Schemas["BarView"];
type Thread = Schemas["ThreadView"];
export type Times = {
  intensity: { up: number; down: number; delay: number };
  position: { fade: number; delay: number };
  colour: { fade: number; delay: number };
  beam: { fade: number; delay: number };
};
export const FAMILIES = ["intensity", "position", "colour", "beam"] as const;
export type Family = (typeof FAMILIES)[number];
export const FAMILY_TITLES: Record<Family, string> = {
  intensity: "Level",
  position: "Position",
  colour: "Colour",
  beam: "Beam",
};

/** Times with nothing left out. */
export function timesOf(times: Schemas["CueTimes"]): Times {
  const family = (one?: { fade?: number; delay?: number }) => ({
    fade: one?.fade ?? 0,
    delay: one?.delay ?? 0,
  });
  return {
    intensity: {
      up: times.intensity?.up ?? 0,
      down: times.intensity?.down ?? 0,
      delay: times.intensity?.delay ?? 0,
    },
    position: family(times.position),
    colour: family(times.colour),
    beam: family(times.beam),
  };
}

/** Seconds as people write them: 0.4, 12, 1:30. */
export function seconds(value: number): string {
  if (value >= 60) return `${Math.floor(value / 60)}:${String(Math.round(value % 60)).padStart(2, "0")}`;
  return String(Math.round(value * 10) / 10);
}

/** The common scale of all bars: its end, and where it is labelled, in s. */
export function scaleOf(longest: number): { end: number; ticks: number[] } {
  const end = Math.max(longest * 1.05, LEAST_S);
  const step = STEPS_S.find((one) => end / one <= 5) ?? STEPS_S.at(-1)!;
  const ticks = [];
  for (let at = 0; at <= end; at += step) ticks.push(at);
  return { end, ticks };
}

/** In which lane each thread is drawn: those that overlap stand side by side; where there are too many, the last is shared. */
export function lanesOf(threads: Thread[], rows: number): Map<number, number> {
  const free: number[] = [];
  const lanes = new Map<number, number>();
  for (const one of [...threads].sort((a, b) => a.begins - b.begins)) {
    let lane = free.findIndex((row) => row < one.begins);
    if (lane < 0) lane = Math.min(free.length, MOST_LANES - 1);
    free[lane] = one.ends < 0 ? rows : one.ends;
    lanes.set(one.thread, lane);
  }
  return lanes;
}

export const laneCount = (lanes: Map<number, number>) =>
  Math.max(0, ...lanes.values()) + (lanes.size ? 1 : 0);

/** The row that a drag of some pixels leads to. */
export const rowAt = (row: number, movedPx: number, rows: number) =>
  Math.min(Math.max(row + Math.round(movedPx / ROW_PX), 0), rows - 1);

export type Grip = "delay" | "end" | "up" | "down";

/** Other times after a grip of a bar was dragged to a time: a fade is never below 0, and the delay takes the fade along. */
export function draggedTimes(times: Times, family: Family, grip: Grip, to: number): Times {
  const at = Math.max(0, Math.round(to * 10) / 10);
  if (family === "intensity") {
    const { delay, up, down } = times.intensity;
    const fade = Math.max(0, Math.round((at - delay) * 10) / 10);
    const intensity =
      grip === "delay"
        ? { ...times.intensity, delay: at }
        : {
            delay,
            up: grip === "down" ? up : fade,
            down: grip === "up" ? down : fade,
          };
    return { ...times, intensity };
  }
  const own = times[family];
  const changed =
    grip === "delay"
      ? { ...own, delay: at }
      : { ...own, fade: Math.max(0, Math.round((at - own.delay) * 10) / 10) };
  return { ...times, [family]: changed };
}

/** A bar with other times. */
export function barOf(bar: Bar, times: Times): Bar {
  if (bar.family === "intensity") {
    const { delay, up, down } = times.intensity;
    return { ...bar, begin: delay, up: delay + up, down: delay + down, end: delay + Math.max(up, down) };
  }
  const { delay, fade } = times[bar.family];
  return { ...bar, begin: delay, end: delay + fade };
}

/** Which rows come by themselves after the row before: they are one chain with it. */
export const chained = (rows: CueRow[]) =>
  rows.map((row, n) => n > 0 && ["with", "after", "beat", "bar"].includes(row.trigger.kind ?? "go"));

/** What a list is doing, in a few words. */
export function nowWords(told: Told | null, list: CueList | undefined): string {
  if (!told || !list) return "";
  const on = list.rows.find((row) => row.id === told.cue);
  if (!on) return `${list.rows.length} cues`;
  return `cue ${on.number}${on.name ? ` · ${on.name}` : ""}${told.paused_at !== null ? ", paused" : ""}`;
}
