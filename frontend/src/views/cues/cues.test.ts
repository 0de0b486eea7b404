import { describe, expect, it } from "vitest";

import { barOf, chained, draggedTimes, lanesOf, rowAt, scaleOf, seconds, timesOf, type Times } from "./cues";

const TIMES: Times = {
  intensity: { up: 2, down: 4, delay: 1 },
  position: { fade: 3, delay: 0.5 },
  colour: { fade: 0, delay: 0 },
  beam: { fade: 0, delay: 0 },
};
const thread = (number: number, begins: number, ends: number) => ({
  thread: number,
  begins,
  ends,
  changes: [],
  heads: [],
  effect_id: 1,
  name: "",
  sentence: "",
});

describe("times", () => {
  it.each([
    [0, "0"],
    [0.44, "0.4"],
    [12, "12"],
    [90, "1:30"],
  ])("%f s is written %s", (value, text) => expect(seconds(value)).toBe(text));

  it("has nothing left out", () =>
    expect(timesOf({ intensity: { up: 2 } })).toEqual({
      intensity: { up: 2, down: 0, delay: 0 },
      position: { fade: 0, delay: 0 },
      colour: { fade: 0, delay: 0 },
      beam: { fade: 0, delay: 0 },
    }));

  it.each([
    [9, [0, 2, 4, 6, 8]],
    [0, [0, 1, 2, 3, 4]],
    [55, [0, 20, 40]],
  ])("a scale for %f s has round labels", (longest, ticks) => expect(scaleOf(longest).ticks).toEqual(ticks));

  it.each([
    ["intensity", "end", 6.04, { up: 5, down: 5, delay: 1 }],
    ["intensity", "up", 4, { up: 3, down: 4, delay: 1 }],
    ["intensity", "down", 0.2, { up: 2, down: 0, delay: 1 }],
    ["intensity", "delay", 3, { up: 2, down: 4, delay: 3 }],
    ["position", "end", 5.5, { fade: 5, delay: 0.5 }],
    ["position", "delay", -2, { fade: 3, delay: 0 }],
  ] as const)("%s dragged by its %s to %f s", (family, grip, to, expected) => {
    const times = draggedTimes(TIMES, family, grip, to);
    expect(times[family]).toEqual(expected);
    const bar = barOf({ family, begin: 0, end: 0, up: 0, down: 0 }, times);
    expect(bar.end).toBe(
      family === "intensity"
        ? times.intensity.delay + Math.max(times.intensity.up, times.intensity.down)
        : times[family].delay + times[family].fade,
    );
  });
});

describe("threads", () => {
  it("stand side by side where they overlap, and share a lane where they do not", () =>
    expect(Object.fromEntries(lanesOf([thread(1, 0, 3), thread(2, 1, -1), thread(3, 4, 6)], 9))).toEqual({
      1: 0,
      2: 1,
      3: 0,
    }));
  it.each([
    [2, 100, 4],
    [2, -500, 0],
    [8, 60, 9],
  ])("from row %i, dragged by %i px, is row %i", (row, px, to) => expect(rowAt(row, px, 10)).toBe(to));
  it("are chains where cues come by themselves", () => {
    const rows = ["go", "with", "go", "after", "bar"].map((kind) => ({ trigger: { kind } }));
    expect(chained(rows as never)).toEqual([false, true, false, true, true]);
  });
});
