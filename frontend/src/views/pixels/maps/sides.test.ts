import { describe, expect, it } from "vitest";

import { hasRoom, sidesFor } from "./sides";

const cells = (count: number) => Array.from({ length: count }, (_, n) => `1.${n + 1}`);

describe("the sides of a drawn grid", () => {
  it.each([
    [1024, 64, 16],
    [72, 18, 4],
    [1, 1, 1],
    [7, 7, 1],
    [1000, 63, 16],
  ])("have room for %i cells", (count, columns, rows) => {
    expect(sidesFor({ heads: cells(count) })).toEqual({ columns, rows });
    expect(hasRoom({ kind: "grid", heads: cells(count), columns, rows })).toBe(true);
    expect(hasRoom({ kind: "grid", heads: cells(count), columns, rows: rows - 1 })).toBe(false);
    expect(hasRoom({ kind: "stage", heads: cells(count), columns: 1, rows: 1 })).toBe(true);
  });
  it("stay as they were drawn where the cells fit", () => {
    expect(sidesFor({ heads: cells(90), columns: 10, rows: 10 })).toEqual({ columns: 10, rows: 10 });
  });
});
