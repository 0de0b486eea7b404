import { describe, expect, it } from "vitest";

import { HEAD } from "../../../api/frames";
import type { HeadsFrame } from "../../../live/frame";
import { covered, paintCells, placed } from "./paintCells";

function frameOf(colours: number[][]): HeadsFrame {
  const heads = new DataView(new ArrayBuffer(colours.length * HEAD.bytes));
  colours.forEach((rgb, n) => rgb.forEach((one, k) => heads.setUint8(n * HEAD.bytes + HEAD.colour + k, one)));
  return { kind: "heads", number: 0, time: 0, rig: 0, count: colours.length, heads, running: [] };
}

describe("cells of a canvas", () => {
  it("lie where their areas are, with a gap where there is room for one", () => {
    expect([...placed([0, 0, 0.5, 1, 0.5, 0, 1, 1], 20)]).toEqual([0, 0, 9, 19, 10, 0, 19, 19]);
    expect([...placed([0, 0, 0.5, 1], 4)]).toEqual([0, 0, 2, 4]);
  });
  it("cover a share of it", () => {
    expect(covered([0, 0, 0.5, 0.25, 0.5, 0, 1, 0.25], 1, 0.25)).toBe(1);
    expect(covered([0, 0, 0.25, 0.25, 0.5, 0, 0.75, 0.25], 1, 0.5)).toBe(0.25);
    expect(covered([], 0, 0)).toBe(1);
  });
  it("have the colours of their heads; dark ones and those that no frame has are seen as dark", () => {
    const pixels = new Uint32Array(3);
    const places = new Int32Array([0, 0, 1, 1, 1, 0, 2, 1, 2, 0, 3, 1]);
    paintCells(
      pixels,
      3,
      places,
      [1, 0, 9],
      frameOf([
        [0, 0, 0],
        [255, 128, 30],
      ]),
    );
    const rgb = [...pixels].map((one) => [one & 255, (one >> 8) & 255, (one >> 16) & 255]);
    expect(rgb).toEqual([
      [255, 128, 30],
      [24, 21, 18],
      [24, 21, 18],
    ]);
  });
});
