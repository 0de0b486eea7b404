import { describe, expect, it } from "vitest";

import type { Timeline } from "../../api/timelines";
import { rowsOf } from "./rows";
import {
  barAndBeat,
  beatLines,
  frameS,
  levelFor,
  positionAt,
  positionText,
  readPosition,
  snapped,
  ticks,
  within,
  xOf,
  zoomed,
} from "./scale";

const SONG = {
  bars: [0.5, 2.5, 4.5, 6.5],
  document: { rate: "25", grid: { in_bar: 4 } },
  tracks: [
    { id: 1, document: { name: "a", group: "video", kind: "messages", drives: "device:1" }, drives: "x" },
    { id: 2, document: { name: "b", group: "light", kind: "cues", drives: "list:1" }, drives: "y" },
  ],
} as unknown as Timeline;

describe("positions", () => {
  it.each([
    [64.72, "25", "1:04.18"],
    [0, "25", "0:00.00"],
    [59.999, "25", "0:59.24"],
    [3600, "30", "60:00.00"],
    [1001 / 30000, "29.97", "0:00.01"],
  ])("%f s at %s is %s, and is read back to the frame", (p, rate, text) => {
    expect(positionText(p, rate)).toBe(text);
    expect(Math.abs(readPosition(text, rate)! - p)).toBeLessThan(frameS(rate));
  });
  it.each(["", "1:75.00", "1:04.25", "x", "1:2:3:4"])("%s is no position", (text) => {
    expect(readPosition(text, "25")).toBeNull();
  });
});

describe("what is seen", () => {
  const span = { from: 10, to: 30 };
  it("is drawn where it is found again", () => {
    expect(positionAt(xOf(17, span, 800), span, 800)).toBeCloseTo(17);
  });
  it("zooms around the pointer, from a few frames to the whole song", () => {
    expect(zoomed(span, 0.5, 15, 100, "25")).toEqual({ from: 12.5, to: 22.5 });
    expect(zoomed(span, 100, 15, 100, "25")).toEqual({ from: 0, to: 100 });
    const close = zoomed(span, 1e-6, 15, 100, "25");
    expect(close.to - close.from).toBeCloseTo(8 / 25);
    expect(within({ from: -5, to: 15 }, 100)).toEqual({ from: 0, to: 20 });
  });
  it("has times along the top that do not touch", () => {
    const found = ticks({ from: 0, to: 60 }, 800);
    expect(found).toEqual([0, 10, 20, 30, 40, 50, 60]);
    expect(levelFor([0.006, 0.024, 0.1], 0.05)).toBe(1);
  });
});

describe("beats", () => {
  it("lie evenly in their bars", () => {
    expect(beatLines(SONG.bars, 4, { from: 2.4, to: 4.4 }).map((one) => one.p)).toEqual([2.5, 3, 3.5, 4]);
    expect(barAndBeat(3.1, SONG.bars, 4)).toEqual([2, 2]);
    expect(barAndBeat(0.2, SONG.bars, 4)).toBeNull();
  });
  it("draw positions to them", () => {
    expect(snapped(3.2, "beat", SONG)).toBe(3);
    expect(snapped(3.6, "bar", SONG)).toBe(4.5);
    expect(snapped(3.21, "frame", SONG)).toBeCloseTo(3.2);
    expect(snapped(3.21, "off", SONG)).toBe(3.21);
  });
});

it("tracks lie below each other by their groups, light first", () => {
  expect(rowsOf(SONG).map((row) => row.heading ?? row.track!.id)).toEqual(["Light", 2, "Video", 1]);
});
