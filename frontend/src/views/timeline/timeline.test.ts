// @vitest-environment jsdom
import { describe, expect, it } from "vitest";

import type { Timeline } from "../../api/timelines";
import { frameS } from "../../live/timecode";
import { beatS, levelAt, newEvent } from "./line/newEvent";
import { seenOf } from "./line/paintTracks";
import { rowsOf } from "./rows";
import {
  barAndBeat,
  beatLines,
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
  first_bar: 1,
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
    expect(barAndBeat(3.1, SONG)).toEqual([2, 2]);
    expect(barAndBeat(0.2, SONG)).toBeNull();
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

describe("a new event", () => {
  const point = (at: number, value: number) => ({ at, track_id: 3, document: { value } });
  const track = (id: number, kind: string, drives: string) => ({ id, document: { name: "t", kind, drives } });
  const song = {
    ...SONG,
    cues: [7, 8, 9].map((id) => ({ id, list_id: id === 9 ? 2 : 1, number: id, name: "" })),
    events: [point(1, 0), { at: 2, track_id: 2, document: { cue: 7 } }, point(3, 1)],
  } as unknown as Timeline;
  it.each([
    ["cues", "list:1", 2, 5, { document: { cue: 8 } }],
    ["cues", "list:1", 2, 1, { document: { cue: 7 } }],
    ["cues", "list:5", 4, 5, null],
    ["presses", "control:1", 5, 3, { length: 0.5, document: { does: "hold" } }],
    ["levels", "control:1", 3, 1.5, { document: { value: 0.25 } }],
    ["messages", "device:1", 6, 1, null],
  ])("on %s of %s, track %i, at %f s is what comes next there", (kind, drives, id, at, made) => {
    const found = newEvent(song, track(id, kind, drives) as never, at);
    if (made === null) expect(found).toBeNull();
    else expect(found).toMatchObject({ track_id: id, at, ...made });
  });
  it("has the level of its height, and beats are those of the bar", () => {
    const given = newEvent(song, track(3, "levels", "control:1") as never, 2, 0.8);
    expect(given?.document).toEqual({ value: 0.8 });
    expect([levelAt([], 1), beatS(song, 0.1), beatS(song, 3)]).toEqual([0, 0.5, 0.5]);
  });
});

describe("what is seen of a line of points", () => {
  const at = (one: number) => one;
  it.each([
    ["in the middle", [0, 1, 2, 3, 4, 5], { from: 1.5, to: 3.5 }, [1, 2, 3, 4]],
    ["between two points", [0, 10], { from: 4, to: 5 }, [0, 10]],
    ["before all", [5, 6], { from: 1, to: 2 }, [5]],
    ["behind all", [5, 6], { from: 8, to: 9 }, [6]],
    ["all of it", [0, 1, 2], { from: 0, to: 2 }, [0, 1, 2]],
    ["nothing", [], { from: 0, to: 2 }, []],
  ])("%s", (_, points, span, seen) => expect(seenOf(points as number[], at, span)).toEqual(seen));
});
