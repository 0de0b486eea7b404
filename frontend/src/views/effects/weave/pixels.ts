import type { Schemas } from "../../../api/client";

/** Bytes of base64 text. */
export function bytesOf(text: string): Uint8Array {
  const letters = atob(text);
  const bytes = new Uint8Array(letters.length);
  for (let n = 0; n < letters.length; n++) bytes[n] = letters.charCodeAt(n);
  return bytes;
}

/** The picture of a weave, one pixel a head and column, ready for canvas. */
export function weaveImage(weave: Schemas["WeaveView"]): ImageData {
  const bytes = bytesOf(weave.pixels);
  const image = new ImageData(weave.columns, weave.heads.length);
  for (let from = 0, to = 0; from < bytes.length; from += 3, to += 4) {
    image.data[to] = bytes[from]!;
    image.data[to + 1] = bytes[from + 1]!;
    image.data[to + 2] = bytes[from + 2]!;
    image.data[to + 3] = 255;
  }
  return image;
}

/** A canvas with the picture of a weave, one pixel a head and column. */
export function weaveCanvas(image: ImageData): HTMLCanvasElement {
  const canvas = document.createElement("canvas");
  canvas.width = image.width;
  canvas.height = image.height;
  canvas.getContext("2d")!.putImageData(image, 0, 0);
  return canvas;
}

/** What the rows of a weave show, behind how many there are. */
export const wovenBy = (attribute: string) =>
  attribute === "look" ? "" : attribute === "colour" ? ", colour alone" : `, by ${attribute}`;

/** What a pixel of a weave stands for, in words: a level and a colour, or a value with its unit. */
export function valueAt(
  weave: Pick<Schemas["WeaveView"], "attribute" | "unit" | "columns" | "black" | "white">,
  data: Uint8ClampedArray | Uint8Array,
  row: number,
  share: number,
): string {
  const column = Math.min(weave.columns - 1, Math.floor(share * weave.columns));
  const at = 4 * (row * weave.columns + column);
  const [red, green, blue] = [data[at]!, data[at + 1]!, data[at + 2]!];
  const value = weave.black + (Math.max(red, green, blue) / 255) * (weave.white - weave.black);
  const text = `${Math.round(value)}${weave.unit === "°" ? "°" : ` ${weave.unit}`}`.trim();
  if ((weave.attribute !== "look" && weave.attribute !== "colour") || (red === green && green === blue))
    return text;
  const full = 255 / Math.max(red, green, blue);
  const hex = [red, green, blue].map((one) =>
    Math.round(one * full)
      .toString(16)
      .padStart(2, "0"),
  );
  return `${text} of #${hex.join("")}`;
}

export interface Tick {
  share: number;
  text: string;
}

/** Marks along a weave's time axis: whole beats (or seconds), few enough to be read. */
export function ticks(length: number, unit: "beat" | "s", most = 8): Tick[] {
  const steps = [0.25, 0.5, 1, 2, 4, 8, 16, 32, 64, 128];
  const step = steps.find((one) => length / one <= most) ?? length;
  const marks: Tick[] = [];
  for (let at = 0; at <= length + 1e-9; at += step) {
    const text = `${Math.round(at * 100) / 100}`;
    marks.push({ share: at / length, text: unit === "s" ? `${text} s` : text });
  }
  return marks;
}

/** Columns worth asking for: fewer when there are many heads. */
export const columnsFor = (heads: number) =>
  Math.max(48, Math.min(240, Math.round(15000 / Math.max(heads, 1))));
