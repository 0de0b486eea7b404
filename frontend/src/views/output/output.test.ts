import { describe, expect, it } from "vitest";

import { bars } from "./health/minute";
import { gotBy } from "./slots/compare";
import { cellAt, differing, fixtureLayout, freeLayout, isFound, ownerOf, shown } from "./slots/places";
import { ago, outputWords, routeWords, type OutputFacts } from "./words";

const spot = {
  number: 101,
  name: "Rear spot",
  mode: "spot",
  address: 3,
  channels: ["pan", "", "red of cell 2"],
};
const wash = { number: 201, name: "Mid wash", mode: "wash", address: 511, channels: ["red", "green"] };

describe("slots", () => {
  it("stand so many in a row", () => {
    const layout = freeLayout([spot], 24, 240);
    expect([layout.cells.length, layout.height, layout.cellWidth]).toEqual([512, 22 * 34, 10]);
    expect(cellAt(layout, 5, 5)?.slot).toBe(1);
    expect(cellAt(layout, 235, 40)?.slot).toBe(48);
    expect(cellAt(layout, 235, 21 * 34 + 5)).toBeNull();
    expect(layout.cells.filter((cell) => cell.fixture).map((cell) => cell.slot)).toEqual([3, 4, 5]);
  });
  it("stand by fixture, with what each does", () => {
    const layout = fixtureLayout([spot, wash], 170);
    expect(layout.cells.map((cell) => [cell.slot, cell.name])).toEqual([
      [3, "pan"],
      [4, "not used"],
      [5, "red of cell 2"],
      [511, "red"],
      [512, "green"],
    ]);
    expect(layout.headings[1]!.text).toBe("201 Mid wash · wash · 511–512");
    const third = layout.cells[2]!;
    expect([third.x, third.y > layout.cells[0]!.y]).toEqual([0, true]);
    expect(cellAt(layout, third.x + 1, third.y + 1)).toBe(third);
  });
  it("say whose they are, and are found by words", () => {
    expect([2, 3, 4].map((slot) => ownerOf([spot], slot))).toEqual([
      "free",
      "101 Rear spot, pan",
      "101 Rear spot, not used",
    ]);
    expect(["", "101", "REAR", "wash"].map((words) => isFound(spot, words))).toEqual([
      true,
      true,
      true,
      false,
    ]);
    expect(isFound(null, "x")).toBe(false);
  });
  it.each([
    ["decimal", "255"],
    ["percent", "100"],
    ["hexadecimal", "FF"],
  ] as const)("show values as %s", (format, text) => expect(shown(255, format)).toBe(text));
  it("differ where a node says what was not sent lately", () => {
    const frames = Array.from({ length: 30 }, (_, n) => new Uint8Array([n ? 3 : 1, 5, 9]));
    expect([...differing(frames, [2, 5, 8])]).toEqual([2]);
    expect([...differing(frames.slice(1), [2, 5, 8])]).toEqual([]);
  });
  it("are compared by the number that the route gives", () => {
    const route = {
      on: true,
      document: { to: "simulator", protocol: "Art-Net" as const },
      carried: [
        [1, 0],
        [2, 1],
      ],
    };
    const nodes = [{ protocol: "Art-Net" as const, universes: [{ universe: 1, slots: [7] }] }];
    const asked = (universe: number, on = true) =>
      gotBy("Art-Net", universe, nodes as never, [{ ...route, on }] as never);
    expect(asked(2)).toEqual([7]);
    expect([asked(1), asked(3), asked(2, false)]).toEqual([null, null, null]);
  });
});

const second = (worst: number, late = 0) => ({ middle_ms: 2, worst_ms: worst, late });
const facts = (change: { states?: string[]; held?: number; late?: number; who?: string }): OutputFacts =>
  ({
    routes: (change.states ?? ["sending"]).map((state, id) => ({ id, state })),
    held: Array.from({ length: change.held ?? 0 }, () => ({})),
    health: { minute: [second(3, change.late)], troubles: change.who ? [{ who: change.who, text: "" }] : [] },
  }) as never;

describe("the state of the output", () => {
  it.each([
    [{}, "Sending", false, "health"],
    [{ states: ["sending", "off"] }, "Sending", false, "health"],
    [{ states: ["off"] }, "No output", true, "routes"],
    [{ states: ["sending", "failed"], late: 99 }, "Route failed", true, "routes"],
    [{ states: ["not allowed"] }, "Route waits", true, "routes"],
    [{ who: "Other source" }, "Other source", true, "routes"],
    [{ late: 30 }, "Frames late", true, "health"],
    [{ held: 1, states: ["failed"] }, "Slot held", true, "slots"],
  ])("%o: %s", (change, text, wrong, tab) =>
    expect(outputWords(facts(change))).toEqual({ text, wrong, tab }),
  );
  it("says how a route does", () => {
    const state = {
      id: 1, protocol: "E1.31", to: "simulator", state: "sending", universes: 1, packets: 9, per_second: 44.2,
      errors: 2, drops: 0, since_last_s: 0.1, longest_gap_s: 0.9,
    }; // prettier-ignore
    expect(routeWords(state)).toBe(
      "1 universe · 44 packets/s · last just now · longest gap 0.90 s · 2 errors",
    );
    expect(routeWords({ ...state, state: "off" })).toBe("off");
    expect([0.2, 5, 240].map(ago)).toEqual(["just now", "5 s ago", "4 min ago"]);
  });
  it("draws the newest second at the right", () => {
    const [first, last] = bars([second(4), second(50, 1)], 20, 600);
    expect([first!.x, last!.x, last!.worst, last!.late]).toEqual([580, 590, 1, true]);
    expect([first!.middle, first!.worst, first!.late]).toEqual([0.1, 0.2, false]);
  });
});
