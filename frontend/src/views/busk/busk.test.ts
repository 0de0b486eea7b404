// @vitest-environment jsdom
import { describe, expect, it } from "vitest";

import type { BuskPad, BuskRow, RowTold, Section } from "../../api/busk";
import { movedTo } from "./edit/order";
import { clashOf, heldColours, left } from "./hints";
import { letterOf, padAt, rowAt } from "./keys";
import { onPage, padWidth, pagesOf, rooms, rowRoom, shownSections } from "./layout";
import { movesWords, shortly } from "./rows/EffectTools";
import { heldElsewhere } from "./rows/RowName";
import { secondsAt, wayOf } from "./side/NextChange";

const ALL: Section[] = ["colour", "position", "beam", "effects"];

describe("the room of a row", () => {
  it.each([834, 586, 1200, 480])(
    "is given out whole, with pads of 40 pixels or more, in %i pixels",
    (width) => {
      for (const carries of [
        ALL,
        ["colour", "effects"],
        ["effects"],
        ["colour", "position"],
      ] as Section[][]) {
        const found = rooms(shownSections({ kind: "lights", carries }, "position"), width);
        expect(found.reduce((sum, room) => sum + room.width, 6 * (found.length - 1))).toBe(width);
        for (const room of found) expect(padWidth(room, 99)).toBeGreaterThanOrEqual(40);
      }
    },
  );
  it("goes to the colours where there are no positions", () => {
    const [moving] = rooms(["colour", "position", "effects"], 834);
    const [still] = rooms(["colour", "effects"], 834);
    expect(still!.width).toBeGreaterThan(moving!.width + 150);
    expect(moving!.seen).toBeGreaterThanOrEqual(7);
  });
  it("shows of position and beam the one that was chosen", () => {
    expect(shownSections({ kind: "lights", carries: ALL }, "beam")).toEqual(["colour", "beam", "effects"]);
    expect(shownSections({ kind: "messages", carries: ["messages"] }, "beam")).toEqual(["messages"]);
    expect(shownSections({ kind: "haze", carries: [] }, "beam")).toEqual([]);
  });
  it("fits twelve rows into 510 pixels, and pages of them where there are more", () => {
    expect(rowRoom(12, 510)).toEqual({ seen: 12, height: 42 });
    expect(rowRoom(10, 520)).toEqual({ seen: 10, height: 48 });
    expect(rowRoom(20, 510).seen).toBe(12);
  });
});

describe("pages of pads", () => {
  const pads = [1, 2, 3, 4, 5, 6, 7];
  it.each([
    [0, [1, 2, 3]],
    [1, [4, 5, 6]],
    [2, [7]],
    [9, [7]],
  ])("page %i", (page, seen) => expect(onPage(pads, 3, page)).toEqual(seen));
  it("are counted, and are never none", () => expect([pagesOf(7, 3), pagesOf(0, 3)]).toEqual([3, 1]));
});

describe("keys", () => {
  it("press a pad by its letter, of the sections that are shown", () => {
    expect(padAt("e", ["colour", "effects"])).toEqual({ section: "colour", place: 1 });
    expect(padAt("Z", ["colour", "effects"])).toEqual({ section: "effects", place: 0 });
    expect(padAt("a", ["colour", "effects"])).toBeNull();
  });
  it("leave letters alone that do something everywhere", () => {
    for (const letter of "tfbw") expect(padAt(letter, ["colour", "position", "effects"])).toBeNull();
  });
  it("name the pads that they press", () => {
    for (const section of ["colour", "position", "effects"] as Section[])
      for (const place of [0, 3, 7])
        expect(padAt(letterOf(section, place), [section])).toEqual({ section, place });
    expect(letterOf("colour", 30)).toBe("");
  });
  it("choose rows", () => expect(["1", "9", "0", "x"].map(rowAt)).toEqual([0, 8, 9, null]));
});

const pad = (id: number, palette: number, name: string) => ({ id, palette, name, gone: "" }) as BuskPad;
const row = (id: number, name: string, kind = "lights") =>
  ({
    id,
    name,
    kind,
    colour: [pad(1, 10, "Coral"), pad(2, 20, "Rose")],
    position: [],
    beam: [pad(3, 30, "Narrow")],
  }) as unknown as BuskRow;
const told = (id: number, held: RowTold["held"], dark = false) => ({ id, held, dark }) as RowTold;
const ROWS = [row(1, "Left"), row(2, "Right"), row(3, "All", "all")];
const CLASHES = { 10: [20], 20: [10] };

describe("clashes", () => {
  const held = heldColours(ROWS, [
    told(1, [{ pad: 2, covered: 0 }]),
    told(2, []),
    told(3, [{ pad: 1, covered: 0 }]),
  ]);
  it("are seen beside what another row of lights holds", () => {
    expect(held).toEqual([{ row: 1, rowName: "Left", palette: 20, name: "Rose" }]);
    expect(clashOf(ROWS[1]!.colour[0]!, ROWS[1]!, held, CLASHES)?.rowName).toBe("Left");
    expect(clashOf(ROWS[1]!.colour[1]!, ROWS[1]!, held, CLASHES)).toBeNull();
  });
  it("are no matter of the row itself, of dark lights, or of what is covered", () => {
    expect(clashOf(ROWS[0]!.colour[0]!, ROWS[0]!, held, CLASHES)).toBeNull();
    expect(
      heldColours(ROWS, [told(1, [{ pad: 2, covered: 0 }], true), told(2, [{ pad: 2, covered: 1 }])]),
    ).toEqual([]);
  });
});

describe("words", () => {
  it("say what a row holds of what is not shown", () => {
    expect(heldElsewhere(ROWS[0]!, told(1, [{ pad: 3, covered: 0 }]), "position")).toBe("Narrow");
    expect(heldElsewhere(ROWS[0]!, told(1, [{ pad: 3, covered: 0 }]), "beam")).toBe("");
  });
  it("say what a depth is of", () => {
    expect(movesWords(["intensity", "position"])).toBe("intensity, movement");
    expect([shortly(["position"]), shortly(["colour", "beam"]), shortly([])]).toEqual([
      "move",
      "colour+",
      "",
    ]);
  });
  it("count down to when a pad goes", () =>
    expect([left(5, 3.75), left(1, 2), left(null, 2)]).toEqual(["1.3 s", "0.0 s", "waits"]));
});

it("short times have the most room on the fader", () => {
  expect([0, 50, 100].map(secondsAt)).toEqual([0, 5, 20]);
  for (const seconds of [0, 0.5, 2, 7.2, 20]) expect(secondsAt(wayOf(seconds))).toBe(seconds);
});

it("what is dragged stands before or after another", () => {
  const list = [1, 2, 3, 4].map((id) => ({ id }));
  const ids = (moved: number[], target: number, where: string) =>
    movedTo(list, moved, target, where).map((one) => one.id);
  expect(ids([1], 3, "after")).toEqual([2, 3, 1, 4]);
  expect(ids([4, 2], 1, "before")).toEqual([2, 4, 1, 3]);
  expect(ids([1], 9, "after")).toEqual([1, 2, 3, 4]);
});
