import { describe, expect, it, vi } from "vitest";

import { Newest } from "../../api/newest";
import { planOf, toPixel, toStage } from "./plan";
import { beginsValue, inWords, lacking, sourceOf, stepOf } from "./values";

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
    expect([0, 1, 2].map((by_hand) => sourceOf(value({ by_hand })))).toEqual([
      "home",
      "draft, 1 home",
      "draft",
    ]);
    expect([lacking(value({}), 2), lacking(value({}), 5)]).toEqual(["", "2 of 5 have it"]);
  });
  it("change by keys", () => {
    expect([stepOf("ArrowUp", false), stepOf("ArrowDown", true), stepOf("a", false)]).toEqual([1, -10, null]);
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
