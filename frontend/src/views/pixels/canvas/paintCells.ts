/** Cells of a canvas as the live frames have them. Pure: into the pixels of an image. */
import { HEAD } from "../../../api/frames";
import type { HeadsFrame } from "../../../live/frame";

/** Where each cell is, in whole pixels: left, top, right, bottom, one after another. */
export function placed(areas: number[], scale: number): Int32Array {
  const found = new Int32Array(areas.length);
  for (let n = 0; n < areas.length; n += 4) {
    const [left, top] = [Math.round(areas[n]! * scale), Math.round(areas[n + 1]! * scale)];
    const gap = (areas[n + 2]! - areas[n]!) * scale > 5 ? 1 : 0;
    found[n] = left;
    found[n + 1] = top;
    found[n + 2] = Math.max(left + 1, Math.round(areas[n + 2]! * scale) - gap);
    found[n + 3] = Math.max(top + 1, Math.round(areas[n + 3]! * scale) - gap);
  }
  return found;
}

/** What share of a canvas cells cover, 0…1; they do not overlap. */
export function covered(areas: number[], width: number, height: number): number {
  let sum = 0;
  for (let n = 0; n < areas.length; n += 4)
    sum += (areas[n + 2]! - areas[n]!) * (areas[n + 3]! - areas[n + 1]!);
  return width * height > 0 ? sum / (width * height) : 1;
}

/** What a dark cell looks like, so that the canvas is seen. */
const DARK = [24, 21, 18] as const;
const OPAQUE = 0xff000000;

/** Paint cells into the pixels (RGBA, little-endian) of an image that is so wide. heads: the number of each in the frame. */
export function paintCells(
  pixels: Uint32Array,
  width: number,
  places: Int32Array,
  heads: number[],
  frame: HeadsFrame | null,
) {
  pixels.fill(0);
  const height = pixels.length / width;
  heads.forEach((head, n) => {
    const at = head * HEAD.bytes + HEAD.colour;
    const known = frame !== null && head < frame.count;
    const drive = (k: number) => Math.max(known ? frame.heads.getUint8(at + k) : 0, DARK[k]!);
    const colour = (OPAQUE | (drive(2) << 16) | (drive(1) << 8) | drive(0)) >>> 0;
    const [left, right] = [places[4 * n]!, Math.min(places[4 * n + 2]!, width)];
    for (let y = places[4 * n + 1]!; y < Math.min(places[4 * n + 3]!, height); y++)
      pixels.fill(colour, y * width + left, y * width + right);
  });
}
