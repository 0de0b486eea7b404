import { describe, expect, it } from "vitest";

import { corners, dragged, middle, turned, type Rect } from "./rects";

const SIZE = { x: 400, y: 100 };
const WHOLE: Rect = { left: 0, top: 0, width: 1, height: 1, turn: 0 };
const near = (a: { x: number; y: number }, b: { x: number; y: number }) =>
  expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(0.5);

describe("the rectangle of a layer", () => {
  it("moves with the pointer", () => {
    const moved = dragged(WHOLE, "move", { x: 10, y: 10 }, { x: 50, y: 35 }, SIZE);
    expect(moved).toEqual({ ...WHOLE, left: 0.1, top: 0.25 });
  });
  it.each([
    ["se", { x: 200, y: 50 }, { left: 0, top: 0, width: 0.5, height: 0.5 }],
    ["nw", { x: 100, y: 50 }, { left: 0.25, top: 0.5, width: 0.75, height: 0.5 }],
    ["ne", { x: 300, y: 20 }, { left: 0, top: 0.2, width: 0.75, height: 0.8 }],
  ] as const)("is sized by its corner %s, and the one across stays", (handle, to, wanted) => {
    expect(dragged(WHOLE, handle, { x: 0, y: 0 }, to, SIZE)).toEqual({ ...wanted, turn: 0 });
  });
  it("keeps the corner across where it is when it is turned, too", () => {
    for (const turn of [15, 90, 200]) {
      const rect = { left: 0.2, top: 0.1, width: 0.4, height: 0.5, turn };
      const before = corners(rect, SIZE);
      const after = corners(dragged(rect, "se", before[3]!, { x: 310, y: 90 }, SIZE), SIZE);
      near(after[0]!, before[0]!);
    }
  });
  it("turns by steps of 15°, freely with a modifier", () => {
    const about = middle(WHOLE, SIZE);
    const to = turned({ x: about.x, y: about.y - 80 }, about, 37);
    expect(dragged(WHOLE, "turn", to, to, SIZE).turn).toBe(30);
    expect(dragged(WHOLE, "turn", to, to, SIZE, true).turn).toBe(37);
  });
  it("is never without a size", () => {
    const least = dragged(WHOLE, "se", { x: 0, y: 0 }, { x: -50, y: -50 }, SIZE);
    expect(least.width).toBeGreaterThan(0);
    expect(least.height).toBeGreaterThan(0);
  });
});
