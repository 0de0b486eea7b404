import { describe, expect, it } from "vitest";

import { daysLeft, when } from "./when";

const NOW = new Date(2026, 10, 27, 9, 5);
const at = (...parts: [number, number, number, number, number]) => new Date(...parts).getTime() / 1000;

describe("when something was", () => {
  it.each([
    [at(2026, 10, 27, 0, 0), "today, 00:00"],
    [at(2026, 10, 26, 23, 59), "yesterday, 23:59"],
    [at(2026, 10, 25, 23, 59), "25 Nov, 23:59"],
    [at(2025, 10, 27, 9, 5), "27 Nov 2025"],
    [0, "never"],
  ])("%s: %s", (then, wanted) => expect(when(then, NOW)).toBe(wanted));
  it("counts the days that are left", () => {
    expect(daysLeft(at(2026, 10, 27, 9, 4), 30, NOW)).toBe(30);
    expect(daysLeft(at(2026, 9, 28, 9, 6), 30, NOW)).toBe(1);
    expect(daysLeft(at(2026, 9, 1, 0, 0), 30, NOW)).toBe(0);
  });
});
