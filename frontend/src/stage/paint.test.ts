import { describe, expect, it } from "vitest";

import type { View } from "./geometry";
import { HEAD_BYTES, type HeadsFrame } from "../live/frame";
import { groundOf, numberPlaces, outlines, paintLight, type Head } from "./paint";

class Picture {
  data: Uint8ClampedArray;
  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.data = new Uint8ClampedArray(4 * width * height);
  }
}
Object.assign(globalThis, { ImageData: Picture });

const wall = (columns: number, rows: number) =>
  Array.from({ length: columns * rows }, (_, n) => ({
    key: `601.${n + 1}`,
    kind: "wall",
    fixture: 601 + (n % columns >= columns / 2 ? 1 : 0),
    place: [0.125 * (n % columns), 6, 1 + 0.125 * Math.floor(n / columns)] as [number, number, number],
  })) as Head[];
const view = (scale: number): View => ({
  elevation: "front",
  scaleX: scale,
  scaleY: scale,
  left: 20,
  bottom: 500,
});

describe("cells of a wall", () => {
  it.each([67, 83.3, 101.7, 140])("at %f pixels a metre have even lines between them", (scale) => {
    const cells = groundOf(view(scale), wall(12, 6), { width: 900, height: 900 }, 1).cells;
    const starts = [...new Set(cells.map((cell) => cell.x))].sort((a, b) => a - b);
    const widths = starts.map((x) => cells.find((cell) => cell.x === x)!.width);
    const gaps = starts.slice(1).map((x, n) => x - starts[n]! - widths[n]!);
    expect(new Set(gaps).size).toBe(1);
    expect(Math.max(...widths) - Math.min(...widths)).toBeLessThanOrEqual(1);
  });
  it("are framed one by one where they are large, and by fixture where they are small", () => {
    const heads = wall(12, 6);
    const all = new Map(heads.map((head, n) => [head.key, n]));
    expect(outlines(view(100), heads, all)).toHaveLength(72);
    const small = outlines(view(40), heads, all);
    expect(small).toHaveLength(2);
    expect(small[0]!.right).toBe(small[1]!.left);
    expect(outlines(view(100), heads, new Map())).toEqual([]);
  });
});

describe("order numbers", () => {
  const at = (x: number, y: number, text = "1") => ({ at: { x, y }, text });
  it.each([
    ["alone: above", [at(10, 50)], ["center"]],
    ["side by side: above", [at(10, 50), at(60, 50)], ["center", "center"]],
    ["above one another: beside", [at(10, 50), at(10, 33)], ["left", "left"]],
    ["far above one another: above", [at(10, 90), at(10, 33)], ["center", "center"]],
  ])("%s", (_, lamps, aligned) => {
    expect(numberPlaces(lamps).map((one) => one.align)).toEqual(aligned);
  });
});

describe("light on the stage", () => {
  const heads = Array.from({ length: 60 }, (_, n) => ({
    key: `${n + 1}`,
    kind: n % 3 ? "spot" : "wall",
    fixture: n + 1,
    place: [n / 4, 2, 4] as [number, number, number],
  })) as Head[];
  const frame = (() => {
    const bytes = new DataView(new ArrayBuffer(heads.length * HEAD_BYTES));
    heads.forEach((_, n) => {
      [250, 7 * (n % 30), 120].forEach((drive, band) => bytes.setUint8(n * HEAD_BYTES + band, drive));
      bytes.setUint16(n * HEAD_BYTES + 4, 1500 + 10 * n, true);
      bytes.setInt16(n * HEAD_BYTES + 10, -32767, true);
    });
    return { count: heads.length, heads: bytes } as unknown as HeadsFrame;
  })();
  const painted = (hasTime: () => boolean) => {
    const ground = groundOf(view(30), heads, { width: 600, height: 500 }, 1);
    const painting = { frame, next: 0 };
    let turns = 1;
    while (!paintLight(ground, view(30), painting, hasTime)) turns++;
    return { pixels: [...ground.pixels], turns };
  };
  it("painted in several turns is what it is painted at once", () => {
    const [once, often] = [painted(() => true), painted(() => false)];
    expect([once.turns, often.turns]).toEqual([1, 3]);
    expect(new Set(once.pixels).size).toBeGreaterThan(100);
    expect(often.pixels).toEqual(once.pixels);
  });
});
