import { describe, expect, it } from "vitest";

import { handlesOf, movedBoundary, type StopTimes } from "./scope/handles";
import { valueAt } from "./weave/pixels";
import { headsSeen, seenFrom, seenKey, seenOptions, type SeenOn } from "./weave/seen";
import { outOfRange } from "./editor/slots/ranges";
import { paletteOf, swatchOf, valueKey, valueOf } from "./editor/slots/stopValues";
import { cycleText } from "./speed/speed";
import {
  follow,
  handoverFor,
  headsText,
  lanesOf,
  onCircle,
  ownOffset,
  phaseAt,
  spreadFor,
} from "./spread/spread";

const wave = (form: object, more: object = {}) => ({
  form: { kind: "waveform", shape: "sine", ...form },
  anchor: { kind: "centred" },
  ...more,
});
const handle = (id: string, layer: Parameters<typeof handlesOf>[1], relay = false) =>
  handlesOf(2, layer, relay, 0.4, layer.form.duty ?? null).find((one) => one.id === id)!;

describe("handles of the scope", () => {
  it.each([
    [wave({}), false, ["duty", "start", "relation"]],
    [wave({ shape: "square" }), false, ["duty", "softness", "start", "relation"]],
    [wave({ shape: "steps" }), true, ["duty", "softness", "relation"]],
    [wave({}, { anchor: { kind: "between" } }), false, ["duty", "start"]],
    [{ form: { kind: "path" } }, false, []],
  ])("are those that the form has", (layer, relay, ids) => {
    expect(handlesOf(0, layer, relay, 0.5).map((one) => one.id)).toEqual(ids);
  });

  it.each([
    ["duty", wave({}), 0.25, 0.25, "form.duty"],
    ["duty", wave({}), 0, 0.01, "form.duty"],
    ["softness", wave({ shape: "square", duty: 0.5 }), 0.125, 0.5, "form.softness"],
    ["softness", wave({ shape: "square", duty: 0.5 }), 0.9, 1, "form.softness"],
    ["start", wave({}), 0.251, 90, "start"],
    ["relation", wave({}), 0.1, 2, "anchor.kind"],
    ["relation", wave({}), 0.9, 0, "anchor.kind"],
  ])("%s is changed where it is dragged to", (id, layer, share, value, place) => {
    const one = handle(id, layer);
    expect(one.at(share)).toBeCloseTo(value);
    expect(one.change(one.at(share))).toMatchObject({ operation: "set", path: `layers.2.${place}` });
  });

  it("stand where their value is", () => {
    expect(handle("duty", wave({ shape: "square", duty: 0.5 })).x).toBe(0.5);
    expect(handle("softness", wave({ shape: "square", duty: 0.5, softness: 1 })).x).toBe(0.25);
    expect(handle("start", wave({}, { start: -90 })).x).toBeCloseTo(0.75);
    expect(handle("relation", wave({})).change(2).value).toBe("above");
  });
});

const STOPS: StopTimes[] = [
  { travel: 1, hold: 0 },
  { travel: 1, hold: 1 },
  { travel: 1, hold: 0 },
];
const time = (stops: StopTimes[]) => stops.reduce((sum, stop) => sum + stop.travel + stop.hold, 0);

describe("boundaries of stops", () => {
  it.each([
    [0, "arrive", 0.125, { travel: 0.5, hold: 0.5 }],
    [1, "arrive", 0.9, { travel: 2, hold: 0 }],
    [1, "arrive", 0, { travel: 0, hold: 2 }],
    [1, "leave", 0.625, { travel: 1, hold: 0.5 }],
    [1, "leave", 1, { travel: 1, hold: 2 }],
  ] as const)("stop %i, %s at %f, keeps the whole time", (n, which, share, own) => {
    const moved = movedBoundary(STOPS, n, which, share);
    expect(moved[n]).toEqual(own);
    expect(time(moved)).toBeCloseTo(time(STOPS));
    expect(moved.every((stop) => stop.travel >= 0 && stop.hold >= 0)).toBe(true);
  });
  it("have a handle each, but the end", () => {
    const found = handlesOf(0, { form: { kind: "stops", stops: STOPS } }, false, 0);
    expect(found.map((one) => [one.id, one.x])).toEqual([
      ["arrive-0", 0.25],
      ["leave-0", 0.25],
      ["arrive-1", 0.5],
      ["leave-1", 0.75],
      ["arrive-2", 1],
    ]);
    expect(found[2]!.change(0.6).path).toBe("layers.0.form.stops");
  });
});

describe("the spread", () => {
  const centre = { x: 100, y: 100 };
  it.each([0, 0.1, 0.25, 0.5, 0.75, 0.99])("a phase of %f is found again on the circle", (phase) => {
    expect(phaseAt(onCircle(phase, 70, centre), centre)).toBeCloseTo(phase);
  });
  it("begins on top and goes clockwise", () => {
    expect(onCircle(0, 10, centre)).toEqual({ x: 100, y: 90 });
    expect(onCircle(0.25, 10, centre).x).toBeCloseTo(110);
  });
  it.each([
    [0.95, 0.05, 1.05],
    [1.05, 0.95, 0.95],
    [-0.1, 0.8, -0.2],
    [2.4, 0.5, 2.5],
  ])("a drag from %f to %f goes on at %f", (before, now, after) => {
    expect(follow(before, now)).toBeCloseTo(after);
  });
  it.each([
    [0.25, 0.5, 180],
    [0.5, 0.5, 360],
    [-0.25, 0.5, -180],
    [9, 0.1, 720],
    [0.5, 0, 0],
  ])("a lane at %f with a share of %f asks for %f°", (phase, share, degrees) => {
    expect(spreadFor(phase, share)).toBe(degrees);
  });
  it.each([
    [0.25, 0, 90],
    [0.9, 0.1, -70],
    [0.1, 0.1, 0],
    [0.61, 0.1, -175],
  ])("a head at %f on a lane at %f is %f° apart", (phase, lane, degrees) => {
    expect(ownOffset(phase, lane)).toBe(degrees);
  });
  it("takes a handover from where a lane begins", () => {
    expect([handoverFor(1.5, 3), handoverFor(9, 2), handoverFor(-1, 2), handoverFor(4, 0)]).toEqual([
      0.5, 1, 0.01, 1,
    ]);
  });
  it("lists lanes in their order", () => {
    const lanes = lanesOf(["1", "4", "2", "3"], [0, 0, 1, 1], [0, 0.5], 0.5);
    expect(lanes).toEqual([
      { lane: 0, heads: ["1", "4"], share: 0, offset: 0 },
      { lane: 1, heads: ["2", "3"], share: 0.5, offset: 0.25 },
    ]);
    expect(headsText(["1", "2", "3", "4"], 3)).toBe("1 2 … 4");
    expect(headsText(["1", "2"], 3)).toBe("1 2");
  });
});

describe("on which heads an effect is seen", () => {
  const groups = [{ id: 3, name: "Spots", heads: ["101", "102"], by_rule: false, outdated: false }];
  const known = { own: ["5"], selection: ["7", "8"], groups };
  it.each([
    [{ kind: "own" }, known, ["5"]],
    [{ kind: "own" }, { ...known, own: [] }, ["7", "8"]],
    [{ kind: "selection" }, known, ["7", "8"]],
    [{ kind: "group", id: 3 }, known, ["101", "102"]],
    [{ kind: "group", id: 9 }, known, []],
    [{ kind: "row", count: 4 }, known, []],
  ] as [SeenOn, typeof known, string[]][])("%o", (seen, on, heads) => {
    expect(headsSeen(seen, on).heads).toEqual(heads);
    expect(seenFrom(seenKey(seen))).toEqual(seen);
  });
  it("offers what there is, in words", () => {
    expect(
      seenOptions(known)
        .slice(0, 3)
        .map((one) => one.text),
    ).toEqual(["Its own 1 head", "The selection: 2 heads", "Spots: 2 heads"]);
    expect(seenOptions({ own: [], selection: [], groups: [] })[0]!.text).toBe("A row of 10");
  });
});

describe("values in words", () => {
  it.each([
    [{ cycles: 2, beats: 4, seconds: 2.5 }, ["2 beats", "0.5 bars", "1.25 s"]],
    [{ cycles: 1, beats: 4, seconds: 2 }, ["4 beats", "1 bar", "2 s"]],
    [{ cycles: 2, beats: null, seconds: 3 }, ["1.5 s"]],
  ])("the length of a cycle", (weave, words) => {
    expect(cycleText(weave)).toEqual(words);
  });
  it.each([
    ["50", ""],
    ["", ""],
    ["-", ""],
    ["900", "It goes from 0 to 200 %; 900 becomes 200 %."],
    ["-4", "It goes from 0 to 200 %; -4 becomes 0 %."],
    ["200,5", "It goes from 0 to 200 %; 200,5 becomes 200 %."],
  ])("a typed %s", (typed, words) => {
    expect(outOfRange(typed, 0, 200, "%")).toBe(words);
  });
});

describe("a pixel of the weave", () => {
  const data = new Uint8Array([0, 0, 0, 255, 255, 255, 255, 255, 51, 102, 0, 255, 128, 128, 128, 255]);
  const weave = { columns: 2, unit: "°", black: -10, white: 30 };
  it.each([
    ["pan", 0, 0.2, "-10°"],
    ["pan", 0, 0.99, "30°"],
    ["look", 1, 0, "6° of #80ff00"],
    ["look", 1, 1, "10°"],
  ])("woven by %s, row %i at %f", (attribute, row, share, words) => {
    expect(valueAt({ ...weave, attribute }, data, row, share)).toBe(words);
  });
});

describe("where a stop goes", () => {
  const palettes = [
    { name: "Coral", document: { colour: "#ff4f3a" } },
    { name: "Sky", document: {} },
  ];
  it.each([
    ["#102030", "own", null],
    ["base", "base", null],
    [{ palette: "Coral" }, "palette Coral", "Coral"],
    [40, "own", null],
  ])("%o has a key, and comes back from it", (value, key, palette) => {
    expect(valueKey(value)).toBe(key);
    expect(paletteOf(value)).toBe(palette);
    if (typeof value !== "number") expect(valueOf(key, "#102030")).toEqual(value);
  });
  it("is shown as its colour, or hatched", () => {
    expect(swatchOf("#ff0000", palettes)).toBe("#ff0000");
    expect(swatchOf("palette Coral", palettes)).toBe("#ff4f3a");
    for (const other of ["base", "palette Sky", "palette Gone"])
      expect(swatchOf(other, palettes)).toBe("var(--hatch)");
  });
});
