import { expect, test } from "vitest";

import type { KindDocument } from "../../../api/kinds";
import {
  asHex,
  bytesOf,
  curveOf,
  curveText,
  fromHex,
  grid,
  labelOf,
  likeIt,
  listed,
  renamed,
  resting,
  withCells,
  withChannel,
  withoutCells,
  withRest,
} from "./kindDocument";

const channel = (source: string, slot: number, cell = 0) => ({
  source,
  slots: [slot],
  low: 0,
  high: 1,
  cell,
});
const two = {
  channels: [
    channel("intensity", 0),
    channel("red", 1, 1),
    channel("blue", 2, 1),
    channel("red", 4, 2),
    channel("blue", 5, 2),
  ],
  footprint: 8,
  rests: [[6, 20]],
} as unknown as KindDocument;

test("a curve is read as it is written", () => {
  expect(curveOf("20 = 199; 0 = 39, -1.5 = 0")).toEqual([
    [-1.5, 0],
    [0, 39],
    [20, 199],
  ]);
  expect(
    curveText([
      [0, 39],
      [1, 60],
    ]),
  ).toBe("0 = 39, 1 = 60");
  expect(
    curveOf(
      curveText([
        [0, 39],
        [1, 60],
      ]),
    ),
  ).toEqual([
    [0, 39],
    [1, 60],
  ]);
  expect(curveOf("")).toEqual([]);
  expect(curveOf("loud")).toMatch(/“loud” is no point/);
});

test("one cell is listed beside the whole, and what is changed in it is changed in all", () => {
  expect(listed(two, 2).map(({ at }) => at)).toEqual([0, 3, 4]);
  expect(likeIt(two, 4)).toEqual([2, 4]);
  expect(likeIt(two, 0)).toEqual([0]);
  const changed = withChannel(two, 3, { high: 2, slots: [7] });
  expect(changed.channels.map((one) => one.high)).toEqual([1, 2, 1, 2, 1]);
  expect(changed.channels.map((one) => one.slots[0])).toEqual([0, 1, 2, 7, 5]);
});

test("slots that nothing drives stay at their level", () => {
  expect(resting(two)).toEqual([
    [3, 0],
    [6, 20],
    [7, 0],
  ]);
  expect(withRest(two, 3, 9).rests).toEqual([
    [3, 9],
    [6, 20],
  ]);
  expect(withRest(two, 6, 0).rests).toEqual([]);
});

test("cells stand in a grid around the fixture, rows from the top", () => {
  expect(grid(3, 2, 0.5)).toEqual([
    [-0.5, 0.5, 0],
    [0, 0.5, 0],
    [0.5, 0.5, 0],
    [-0.5, 0, 0],
    [0, 0, 0],
    [0.5, 0, 0],
  ]);
});

test.each([
  [0, 2, [0, 0]],
  [1, 3, [255, 255, 255]],
  [0.5, 2, [128, 0]],
  [0.5, 1, [128]],
])("a share %f of %i bytes", (share, bytes, expected) => expect(bytesOf(share, bytes)).toEqual(expected));

test("colours there and back", () => expect(asHex(fromHex("#ff8000"))).toBe("#ff8000"));

test("cells that come have channels as the first has, cells that go take theirs along", () => {
  const cells = { ...two, cells: grid(2, 1, 0.1) };
  const three = withCells(cells, grid(3, 1, 0.1), []);
  expect(three.channels.slice(5).map(({ source, slots, cell }) => [source, slots[0], cell])).toEqual([
    ["red", 8, 3],
    ["blue", 9, 3],
  ]);
  expect([three.footprint, three.cells.length]).toEqual([10, 3]);
  const one = withoutCells(cells);
  expect(one.channels.map(({ source, cell }) => [source, cell])).toEqual([
    ["intensity", 0],
    ["red", 0],
    ["blue", 0],
  ]);
  expect([one.footprint, one.rests]).toEqual([3, []]);
  const divided = withCells({ ...one, rests: [] }, grid(2, 1, 0.1), ["red", "blue"]);
  expect(divided.channels.map(({ source, slots, cell }) => [source, slots[0], cell])).toEqual([
    ["intensity", 0, 0],
    ["red", 1, 1],
    ["blue", 2, 1],
    ["red", 3, 2],
    ["blue", 4, 2],
  ]);
});

test("a mode's whole name follows its model and its own", () => {
  const jar = { ...two, name: "Jar lamp, 4 channels", model: "Jar lamp", maker: "" };
  expect(labelOf(jar)).toBe("4 channels");
  expect(renamed(jar, "model", "Jar 2")).toMatchObject({ name: "Jar 2, 4 channels", model: "Jar 2" });
  expect(renamed(jar, "label", "wide")).toMatchObject({ name: "Jar lamp, wide", model: "Jar lamp" });
  expect(renamed(jar, "maker", "Corda")).toMatchObject({ name: "Jar lamp, 4 channels", maker: "Corda" });
});
