// @vitest-environment jsdom
import { describe, expect, it } from "vitest";

import { fixturesOf, rigOf, takenAs, type Fixture } from "../../api/rig";
import { carry } from "../../stage/moving";
import type { Head } from "../../api/rig";
import { moved } from "./groups/OrderPanel";
import { blockAt, blocksOf, inWords, placeAt, slotX, strips } from "./map/blocks";
import { asRows, COLUMNS, shownRows, turn } from "./table/columns";
import { step } from "./table/useGridKeys";

const mode = (id: number, footprint: number, parts: number[], cells = parts.length) => ({
  id,
  name: `Mode ${id}, ${footprint} channels`,
  label: `${footprint} channels`,
  maker: "",
  model: `Mode ${id}`,
  kind: "par",
  footprint,
  cells,
  parts: parts.map((part) => ({ part, attributes: [] })),
});
const fixture = (number: number, mode_id: number, address: number | null, more = {}) =>
  ({
    number,
    mode_id,
    name: `Light ${number}`,
    universe: address === null ? null : 1,
    address,
    place: [number, 2, 3],
    rotation: [0, 180, 0],
    cell_order: "",
    notes: "",
    layer: "",
    class_name: "",
    groups: [],
    ...more,
  }) as Fixture;
const rig = rigOf({
  number: 7,
  modes: [mode(1, 5, [0], 0), mode(2, 10, [0, 1, 2], 2), mode(3, 770, [1, 2])],
  fixtures: [
    fixture(1, 1, 1),
    fixture(2, 2, 4),
    fixture(5, 3, null),
    fixture(9, 3, 1, { universe: 3, notes: "by the stairs" }),
  ],
  places: Array.from({ length: 24 }, (_, n) => n),
});

describe("a rig", () => {
  it("has heads by fixture and part, as live frames have them", () => {
    expect(rig.heads.map((head) => head.key)).toEqual(["1", "2", "2.1", "2.2", "5.1", "5.2", "9.1", "9.2"]);
    expect(rig.heads[3]).toMatchObject({ fixture: 2, cell: 2, place: [9, 10, 11], leads: false });
    expect(rig.heads.map((head) => head.leads).indexOf(true)).toBe(1);
  });
  it("is taken as whole lights or as cells", () => {
    expect(takenAs(rig, [2, 1, 5], false)).toEqual(["2", "1", "5.1", "5.2"]);
    expect(takenAs(rig, [2, 1], true)).toEqual(["2.1", "2.2", "1"]);
    expect(fixturesOf(["2.1", "2.2", "1", "2"])).toEqual([2, 1]);
  });
});

describe("universes", () => {
  const all = strips(blocksOf(rig));
  it("have the blocks of each, what goes on in the next, and one free", () => {
    expect(all.map(({ universe, free }) => [universe, free])).toEqual([
      [1, 499],
      [3, 0],
      [4, 254],
      [5, 512],
    ]);
    expect(inWords(all[0]!)).toBe("Universe 1: 1 at 1 to 5, 2 at 4 to 13; 499 free");
    expect(inWords(all[3]!)).toBe("Universe 5: nothing");
  });
  it("are found again by the point at which they are drawn", () => {
    for (const slot of [0, 3, 100, 511]) expect(placeAt(slotX(slot, 700), 45, 700)).toEqual({ row: 1, slot });
    expect(blockAt(all, slotX(4, 700), 5, 700)?.number).toBe(2);
    expect(blockAt(all, slotX(200, 700), 5, 700)).toBeNull();
  });
});

describe("the table", () => {
  it("is filtered by words and sorted by rank or text", () => {
    const shown = (words: string, column = "number", down = false) =>
      shownRows(rig, COLUMNS, words, { column, down }).map((row) => row.number);
    expect(shown("stairs")).toEqual([9]);
    expect(shown("LIGHT 770")).toEqual([5, 9]);
    expect(shown("", "address")).toEqual([1, 2, 9, 5]);
    expect(shown("", "name", true)).toEqual([9, 5, 2, 1]);
  });
  it("goes out as rows for a spreadsheet", () => {
    const text = asRows(rig.fixtures.slice(0, 1), COLUMNS, rig).split("\n");
    expect(text[0]).toBe(
      "Number\tName\tMode\tAddress\tx, m\ty, m\tz, m\tRotation\tCells\tNotes\tLayer\tClass",
    );
    expect(text[1]).toBe("1\tLight 1\tMode 1, 5 channels\t1.1\t1\t2\t3\thanging\tas it was made\t\t\t");
    expect(turn([0, 105, 0])).toBe("0 105 0");
  });
  it("moves by keys as a spreadsheet does", () => {
    expect(["ArrowDown", "End", "PageUp", "x"].map((key) => step(key, false, 90, 9))).toEqual([
      [1, 0],
      [0, 9],
      [-12, 0],
      null,
    ]);
    expect(step("Home", true, 90, 9)).toEqual([-90, -9]);
  });
});

describe("by hand", () => {
  it("an order is corrected", () => {
    expect(moved(["a", "b", "c", "d"], new Set(["d"]), "b", false)).toEqual(["a", "d", "b", "c"]);
    expect(moved(["a", "b", "c", "d"], new Set(["a", "b"]), "c", true)).toEqual(["c", "a", "b", "d"]);
  });
  it("fixtures come onto the lines of others where they are close, else in steps", () => {
    const view = { elevation: "plan" as const, scaleX: 50, scaleY: 50, left: 0, bottom: 500 };
    const at = (x: number, y: number) => ({ place: [x, y, 4] }) as unknown as Head;
    const way = (x: number, y: number) =>
      carry(view, { x: 100, y: 100 }, { x: 100 + x, y: 100 - y }, [at(0, 0)], [at(3, 2)]);
    expect(way(147, 40)).toEqual({ x: 3, y: 0.8, z: 0 });
    expect(way(61, 101).y).toBe(2);
    expect(way(61, 101).x).toBeCloseTo(1.2);
  });
});
