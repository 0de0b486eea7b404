import { describe, expect, it } from "vitest";

import { fresh, KINDS, moved, speaks } from "./messages";

const targets = {
  devices: [
    { id: 3, speaks: "MIDI" as const },
    { id: 4, speaks: "OSC" as const },
  ],
  lists: [{ id: 7 }],
  controls: [{ id: 9 }],
  options: {
    rows: [{ id: 1, text: "Spots" }],
    pads: { 1: [{ id: 5, text: "Red" }] },
    tempos: [{ id: 2, text: "Movement" }],
    specials: [],
    overlays: [{ id: 6, text: "Rose" }],
    maps: [{ id: 3, text: "Wall" }],
    pages: [{ id: 1, text: "Floor" }],
    actions: [{ id: 8, text: "Hit" }],
  },
};

describe("messages of a cue", () => {
  it.each(KINDS.map((one) => one.id))("begins one of kind %s with what it can go to", (kind) => {
    const made = fresh(kind, targets, 1.5)!;
    expect(made).toMatchObject({ kind, wait: 1.5 });
    if ("device" in made) expect(made.device).toBe(speaks(kind) === "OSC" ? 4 : 3);
    if ("list" in made && kind === "list") expect(made.list).toBe(7);
    if (made.kind === "pad") expect([made.row, made.pad]).toEqual([1, 5]);
    if (made.kind === "special") expect(made.do).toBe("home");
  });

  it("begins none where it can go nowhere", () => {
    const nothing = { devices: [], lists: [], controls: [] };
    expect(KINDS.filter((one) => fresh(one.id, nothing)).map((one) => one.id)).toEqual([
      "special",
      "master",
      "stop effects",
      "release everything",
    ]);
  });

  it.each([
    [0, -1, "abc"],
    [0, 1, "bac"],
    [2, -1, "acb"],
    [2, 1, "abc"],
  ] as const)("moves the one at %i by %i", (at, by, expected) => {
    expect(moved([..."abc"], at, by).join("")).toBe(expected);
  });
});
