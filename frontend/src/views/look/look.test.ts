import { describe, expect, it, vi } from "vitest";

import { Newest } from "../../api/newest";
import { planOf, toPixel, toStage } from "./aim/plan";
import { gathered, hexOf, hueOf, pickedAt, placeOf } from "./colour/disc";
import { dragTo, spanOf, xOf, yOf } from "./fan/curve";
import { actsIn, shelves } from "./palettes/palettes";
import { beginsValue, byHead, inWords, lacking, stepOf } from "./values";

const value = (change: object) => ({
  least: 10,
  most: 10,
  mixed: false,
  by_hand: 0,
  heads: ["1", "2"],
  ...change,
});

describe("values", () => {
  it("are a number or a range, with where they come from", () => {
    expect(inWords(value({}))).toBe("10");
    expect(inWords(value({ least: -22.04, most: 22, mixed: true }))).toBe("−22 … 22");
    expect([lacking(value({}), 2), lacking(value({}), 5)]).toEqual(["", "2 of 5 have it"]);
  });
  it("change by keys", () => {
    const [none, shift, alt] = [
      { shiftKey: false, altKey: false },
      { shiftKey: true, altKey: false },
      { shiftKey: false, altKey: true },
    ];
    expect([stepOf("ArrowUp", none), stepOf("ArrowDown", shift), stepOf("ArrowUp", alt)]).toEqual([
      1, -10, 0.1,
    ]);
    expect(stepOf("a", none)).toBeNull();
    expect(["5", "+", "−", "."].every(beginsValue)).toBe(true);
    expect(["a", "Enter", " ", "10"].some(beginsValue)).toBe(false);
  });
});

describe("the plan", () => {
  const plan = planOf(
    [
      { x: -5, y: 6 },
      { x: 5, y: 0 },
    ],
    400,
    300,
  );
  it("is alike in both directions and shows all of it", () => {
    const [a, b] = [toPixel(plan, { x: -5, y: 6 }), toPixel(plan, { x: 5, y: -8 })];
    expect((b.x - a.x) / 10).toBeCloseTo((b.y - a.y) / 14);
    for (const { x, y } of [a, b]) expect([x > 0, x < 400, y > 0, y < 300]).toEqual([true, true, true, true]);
  });
  it("gives metres back", () => {
    expect(toStage(plan, toPixel(plan, { x: 1.23, y: -4.5 }))).toEqual({ x: 1.23, y: -4.5 });
  });
});

it("sends the newest of what comes in while one is on its way", async () => {
  const sent: number[] = [];
  let done = () => {};
  const failed = vi.fn();
  const newest = new Newest<number>((value) => {
    sent.push(value);
    return new Promise<void>((resolve) => (done = resolve));
  }, failed);
  const showing = newest.show(1);
  void newest.show(2);
  void newest.show(3);
  done();
  await vi.waitFor(() => expect(sent).toEqual([1, 3]));
  newest.drop();
  done();
  await showing;
  expect(failed).not.toHaveBeenCalled();
});

describe("the draft", () => {
  it("is told head by head, in the order of numbers", () => {
    const listed = [
      { label: "Pan", attributes: ["pan"], heads: ["110", "9"] },
      { label: "Colour", attributes: ["red", "green", "blue"], heads: ["9"] },
    ];
    expect(byHead(listed)).toEqual([
      { head: "9", attributes: ["pan", "red", "green", "blue"], words: "pan, colour" },
      { head: "110", attributes: ["pan"], words: "pan" },
    ]);
  });
});

describe("the disc", () => {
  it("has hue 0 to the right, and finds again what it places", () => {
    expect(placeOf(0, 100, 60).x).toBeCloseTo(60);
    expect(placeOf(90, 50, 60).y).toBeCloseTo(-30);
    const found = pickedAt(placeOf(200, 40, 60), 60);
    expect([found.hue, found.saturation].map(Math.round)).toEqual([200, 40]);
    expect(pickedAt({ x: 0, y: 90 }, 60)).toEqual({ hue: 270, saturation: 100 });
  });
  it("shows light by its hue however bright, nothing of the dark, and dots that touch as one", () => {
    expect(hueOf(255, 0, 0)).toEqual(hueOf(20, 0, 0));
    expect(hueOf(0, 0, 128)).toEqual({ hue: 240, saturation: 100 });
    expect([hueOf(0, 0, 3), hueOf(80, 80, 80)]).toEqual([null, { hue: 0, saturation: 0 }]);
    const dots = [0, 1, 40].map((x) => ({ x, y: 0 }));
    expect(gathered(dots, 9).map(({ count }) => count)).toEqual([2, 1]);
    expect(hexOf([1, 0.5, -1])).toBe("#ff8000");
  });
});

describe("the curve of a fan", () => {
  const frame = { width: 228, height: 128, low: -50, high: 50 };
  it("finds again the head and the value that it draws", () => {
    const { rank, value } = dragTo(xOf(3, 5, frame), yOf(20, frame), 5, frame);
    expect([rank, Math.round(value)]).toEqual([3, 20]);
    expect(dragTo(-90, 0, 5, frame).rank).toBe(0);
    expect(xOf(0, 1, frame)).toBe(114);
  });
  it("shows a little more than the values, within the range", () => {
    expect(spanOf([0, 100], 0, 200)).toEqual({ low: 0, high: 125 });
    expect(spanOf([10, 10], 0, 100)).toEqual({ low: 2, high: 18 });
  });
});

describe("palettes", () => {
  const palette = (name: string, family: string, set = "") =>
    ({ name, family, set }) as unknown as Parameters<typeof shelves>[0][number];
  const every = [
    palette("Stage", "position"),
    palette("Coral", "colour"),
    palette("Jade, Spots", "colour", "Spots"),
  ];
  it("stand in rows by family, sets apart, and are found by words", () => {
    expect(shelves(every, "").map(({ title }) => title)).toEqual(["Position", "Colour", "Spots"]);
    expect(shelves(every, "spots jade").map(({ title }) => title)).toEqual(["Spots"]);
  });
  it("say where they act only where that is not everywhere", () => {
    expect([actsIn(5, 0), actsIn(5, 5), actsIn(3, 5), actsIn(0, 5)]).toEqual([
      "",
      "",
      "3 of 5",
      "none of these",
    ]);
  });
});
