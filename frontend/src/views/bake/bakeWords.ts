import type { BakedAttribute, BakeFormat, CurvePoint } from "../../api/bakes";

export const FORMATS: { id: BakeFormat; text: string }[] = [
  { id: "json", text: "values, JSON" },
  { id: "csv", text: "values, CSV" },
  { id: "dmx", text: "frames of universes, binary" },
  { id: "dmx-csv", text: "frames of universes, CSV" },
  { id: "midi", text: "a MIDI file" },
  { id: "weave-png", text: "the weave, PNG" },
  { id: "weave-svg", text: "the weave, SVG" },
  { id: "gif", text: "the stage, moving GIF" },
  { id: "mp4", text: "the stage, film (MP4)" },
];

const number = (value: number) => String(Number(value.toPrecision(2)));
export const withUnit = (value: number, unit: string) =>
  `${number(value)}${unit === "°" ? "°" : unit ? ` ${unit}` : ""}`;

/** What became of an attribute, in words. */
export function outcome(one: BakedAttribute, frames: number): string {
  if (one.steps === null || one.steps === undefined) return `${frames.toLocaleString("en")} frames`;
  return `${one.steps.toLocaleString("en")} steps, at most ${withUnit(one.error ?? 0, one.unit)} off`;
}

/** Where a point of a curve is drawn: errors by their logarithm, steps by theirs; 0…1 from the left and from above. */
export function placeOf(point: CurvePoint, points: readonly CurvePoint[]): { x: number; y: number } {
  const share = (value: number, of: number[]) => {
    const [low, high] = [Math.log(Math.min(...of)), Math.log(Math.max(...of))];
    return high > low ? (Math.log(value) - low) / (high - low) : 0.5;
  };
  return {
    x: share(
      point.error,
      points.map((one) => one.error),
    ),
    y:
      1 -
      share(
        point.steps,
        points.map((one) => one.steps),
      ),
  };
}
