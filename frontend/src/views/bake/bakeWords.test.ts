import { expect, it } from "vitest";

import type { BakedAttribute } from "../../api/bakes";
import { outcome, placeOf, withUnit } from "./bakeWords";

it("says what became of an attribute", () => {
  const own = { unit: "%", steps: 82, error: 0.412 } as BakedAttribute;
  expect(outcome(own, 400)).toBe("82 steps, at most 0.41 % off");
  expect(outcome({ ...own, steps: null }, 1400)).toBe("1,400 frames");
  expect([withUnit(1.234, "°"), withUnit(0.02, "")]).toEqual(["1.2°", "0.02"]);
});

it("draws few steps low and large errors to the right", () => {
  const points = [
    { error: 0.1, steps: 1000 },
    { error: 1, steps: 100 },
    { error: 10, steps: 10 },
  ];
  expect(points.map((one) => placeOf(one, points))).toEqual([
    { x: 0, y: 0 },
    { x: expect.closeTo(0.5), y: expect.closeTo(0.5) },
    { x: 1, y: 1 },
  ]);
  expect(placeOf({ error: 1, steps: 5 }, [{ error: 1, steps: 5 }])).toEqual({ x: 0.5, y: 0.5 });
});
