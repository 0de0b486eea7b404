// @vitest-environment jsdom
import { describe, expect, it } from "vitest";

import { HEADER_BYTES, readFrame } from "./live/frame";
import { addBeam } from "./stage/light";
import { beamEnd, beamHalf, fit, inBox, project } from "./stage/geometry";
import { freePlaces, type Control } from "./api/pages";
import { columnsFor, ticks } from "./views/effects/weave/pixels";
import { found } from "./views/effects/shelf/search";
import { boxOf, nearestPoint, placed, toUnit, type XY } from "./views/effects/editor/slots/curves";
import {
  dragged,
  figurePoints,
  heightOf,
  samplesAt,
  wavePoints,
  type Scope,
} from "./views/effects/scope/scopes";
import { ofKind } from "./views/effects/shelf/search";
import { usesKey } from "./frame/shortcuts";

function headsFrame(): ArrayBuffer {
  const buffer = new ArrayBuffer(HEADER_BYTES + 12 + 20);
  const view = new DataView(buffer);
  [0x5a, 0x42, 2, 1].forEach((byte, n) => view.setUint8(n, byte));
  view.setUint32(4, 7, true);
  view.setFloat64(8, 12.5, true);
  view.setUint32(16, 99, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint8(HEADER_BYTES, 200);
  view.setUint32(HEADER_BYTES + 12, 3, true);
  view.setFloat64(HEADER_BYTES + 16, 1.25, true);
  view.setFloat32(HEADER_BYTES + 24, 0.5, true);
  view.setFloat32(HEADER_BYTES + 28, 0.25, true);
  return buffer;
}

describe("live frames", () => {
  it("are read as they were written", () => {
    const frame = readFrame(headsFrame());
    expect(frame).toMatchObject({ kind: "heads", number: 7, time: 12.5, rig: 99, count: 1 });
    expect(frame?.kind === "heads" && frame.running).toEqual([
      { number: 3, theta: 1.25, weight: 0.5, value: 0.25 },
    ]);
  });
  it.each([0, 2, 3, 20])("are refused when byte %d is wrong or the end is missing", (place) => {
    const wrong = headsFrame();
    new DataView(wrong).setUint8(place, 77);
    expect(readFrame(wrong)).toBeNull();
    expect(readFrame(headsFrame().slice(0, 30))).toBeNull();
  });
});

describe("the stage", () => {
  const places = [
    { x: -5, y: 0, z: 6 },
    { x: 5, y: 4, z: 0 },
  ];
  it("shows all places within the picture", () => {
    for (const elevation of ["front", "plan"] as const) {
      const view = fit(places, 800, 200, elevation);
      for (const place of places) {
        const { x, y } = project(view, place);
        expect(inBox({ x, y }, { x: 0, y: 0 }, { x: 800, y: 200 })).toBe(true);
      }
    }
  });
  it("ends beams on the floor, or at their reach", () => {
    expect(beamEnd({ x: 0, y: 0, z: 4 }, { x: 0, y: 0, z: -1 }, 9)).toEqual({ x: 0, y: 0, z: 0 });
    expect(beamEnd({ x: 0, y: 0, z: 4 }, { x: 1, y: 0, z: 0 }, 9)).toEqual({ x: 9, y: 0, z: 4 });
  });
  it("opens beams with their angle", () => {
    const view = fit(places, 800, 200, "front");
    const half = (angle: number) => beamHalf(view, places[0]!, { x: -5, y: 0, z: 0 }, angle);
    expect(half(30)).toBeGreaterThan(half(5) * 2);
  });
  it("adds light along a beam: fading to its edges and its end, on light that is there, and never beyond full", () => {
    const [width, height] = [40, 60];
    const pixels = new Uint8ClampedArray(4 * width * height);
    const beam = {
      from: { x: 20, y: 5 },
      to: { x: 20, y: 50 },
      lens: 2,
      half: 10,
      drives: [200, 100, 0],
    } as const;
    const at = (x: number, y: number) => [...pixels.subarray(4 * (y * width + x), 4 * (y * width + x) + 3)];
    addBeam(pixels, width, height, beam);
    expect(at(20, 10)[0]).toBeGreaterThan(at(20, 45)[0]!);
    expect(at(20, 45)[0]).toBeGreaterThan(at(26, 45)[0]!);
    expect(at(14, 45)).toEqual(at(25, 45)); // the same on both sides of the middle
    for (const [x, y] of [
      [20, 2],
      [20, 55],
      [8, 45],
      [26, 8],
    ] as const)
      expect(at(x, y)).toEqual([0, 0, 0]);
    const once = at(20, 30);
    addBeam(pixels, width, height, beam);
    expect(at(20, 30)).toEqual(once.map((drive) => Math.min(2 * drive, 255)));
  });
  it("leaves beams alone that are off the picture or have no length", () => {
    const pixels = new Uint8ClampedArray(4 * 10 * 10);
    const beam = { lens: 2, half: 4, drives: [255, 255, 255] } as const;
    addBeam(pixels, 10, 10, { ...beam, from: { x: -40, y: 3 }, to: { x: -20, y: 30 } });
    addBeam(pixels, 10, 10, { ...beam, from: { x: 5, y: 5 }, to: { x: 5, y: 5.5 } });
    expect(Math.max(...pixels)).toBe(0);
  });
});

describe("the weave", () => {
  it("marks whole steps, few enough to be read", () => {
    expect(ticks(4, "beat").map((tick) => tick.text)).toEqual([
      "0",
      "0.5",
      "1",
      "1.5",
      "2",
      "2.5",
      "3",
      "3.5",
      "4",
    ]);
    expect(ticks(10, "s").at(-1)).toEqual({ share: 1, text: "10 s" });
    expect(ticks(1000, "beat").length).toBeLessThan(10);
  });
  it("asks for fewer columns when there are many heads", () => {
    expect([columnsFor(1), columnsFor(200), columnsFor(5000)]).toEqual([240, 75, 48]);
  });
});

describe("search", () => {
  const effects = [
    { name: "Tide fold", document: { tags: ["calm"] }, sentence: { text: "Position follows a circle." } },
    { name: "Saltstep", document: {}, sentence: { text: "Spread as a relay." } },
  ];
  it.each([
    ["", 2],
    ["circle calm", 1],
    ["RELAY", 1],
    ["relay, calm", 0],
  ])("%s finds %d", (words, count) => expect(found(effects, words)).toHaveLength(count));
});

describe("points of a curve", () => {
  const points: XY[] = [
    [0, 0],
    [0.5, 1],
    [1, 0.2],
  ];
  const box = boxOf(points);
  it("are found under the pointer and keep their order", () => {
    expect(nearestPoint(points, [0.51, 0.98], box)).toBe(1);
    expect(nearestPoint(points, [0.25, 0.1], box)).toBeNull();
    expect(placed(points, 1, [3, 0.4], true)[1]).toEqual([0.999, 0.4]);
    expect(placed(points, 1, [3, 0.4], false)[1]).toEqual([3, 0.4]);
  });
  it("go from pixels to units", () => {
    const unit = { low: { x: 0, y: 0 }, high: { x: 1, y: 1 } };
    expect(toUnit({ x: 10, y: 90 }, unit, { x: 120, y: 100 }, 10)).toEqual([0, 0]);
    expect(toUnit({ x: 500, y: -5 }, unit, { x: 120, y: 100 }, 10)).toEqual([1, 1]);
  });
});

describe("shortcuts", () => {
  it.each([
    ["<input>", "t", true],
    ["<input type=range>", "t", false],
    ["<button></button>", " ", true],
    ["<button></button>", "t", false],
    ["<div role=listbox><div id=x></div></div>", "t", true],
  ])("%s uses %s: %s", (html, key, uses) => {
    document.body.innerHTML = html;
    expect(usesKey(document.querySelector("#x") ?? document.body.firstElementChild, key)).toBe(uses);
  });
});

const scope = (change: Partial<Scope>): Scope => ({
  layer: 0,
  duty: null,
  depth_per_unit: null,
  kind: "wave",
  names: ["intensity"],
  unit: "%",
  values: [[50, 130, 50]],
  low: [0],
  high: [100],
  base: [50],
  mirrored: [],
  phases: "",
  ...change,
});
const size = { width: 200, height: 120 };

describe("the scope", () => {
  it("shows what is cut off beyond the range", () => {
    expect(heightOf(130, scope({}), size)).toBeCloseTo(12);
    expect(heightOf(100, scope({}), size)).toBeGreaterThan(12);
    expect(wavePoints(scope({}), size).map((point) => point.x)).toEqual([0, 100, 200]);
  });
  it("keeps a figure in proportion and mirrors it", () => {
    const figure = scope({
      kind: "path",
      values: [
        [10, 30],
        [0, 5],
      ],
      base: [20, 0],
    });
    const [a, b] = figurePoints(figure, size);
    expect([a!.x + b!.x, a!.y]).toEqual([200, 60]);
    expect(figurePoints(figure, size, true)[0]!.x).toBeCloseTo(b!.x);
  });
  it("knows where heads are, and which rest", () => {
    expect(samplesAt(new Uint8Array([0, 127, 254, 255]), 2, 2, 0.9, 97)).toEqual([48, -1]);
    expect(samplesAt(new Uint8Array([0, 127, 254, 255]), 2, 2, 0, 97)).toEqual([0, 96]);
  });
  it.each([
    [{ kind: "above", depth: 60 }, 10, 0, { kind: "above", depth: 70 }],
    [{ kind: "below", depth: 60 }, 10, 0, { kind: "below", depth: 50 }],
    [{ kind: "centred", depth: 60 }, 10, 0, { kind: "centred", depth: 80 }],
    [{ kind: "above", depth: 60 }, -100, 0, { kind: "above", depth: 0 }],
    [{ kind: "between", low: 10, high: 80 }, -5, 75, { kind: "between", low: 10, high: 75 }],
    [{ kind: "between", low: 10, high: 80 }, 5, 20, { kind: "between", low: 15, high: 80 }],
  ])("drags %o by %d", (anchor, units, grabbed, wanted) => {
    const perUnit = { above: 1, below: -1, centred: 2 }[anchor.kind] ?? 1;
    expect(dragged(anchor, units, grabbed, perUnit, 200)).toEqual(wanted);
  });
});

describe("kinds of effects", () => {
  const effects = [
    { favourite: true, families: ["intensity"] },
    { favourite: false, families: ["intensity", "colour"] },
  ];
  it.each([
    ["all", 2],
    ["favourite", 1],
    ["intensity", 1],
    ["colour", 0],
    ["mixed", 1],
  ])("%s: %d", (kind, count) => expect(ofKind(effects, kind)).toHaveLength(count));
});

describe("a page", () => {
  it("knows what is free on it", () => {
    const free = freePlaces(
      [
        { place: 1, mode: "fader" },
        { place: 2, mode: "flash" },
      ] as Control[],
      true,
      16,
    );
    expect(free.slice(0, 2)).toEqual([2, 3]);
  });
});
