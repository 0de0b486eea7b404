/** Labels in a second, and real frames, of a rate. */
const RATES: Record<string, [number, number]> = {
  "24": [24, 24],
  "25": [25, 25],
  "29.97": [30, 30000 / 1001],
  "29.97 drop": [30, 30000 / 1001],
  "30": [30, 30],
};
export const rateOf = (rate: string) => RATES[rate] ?? RATES["25"]!;
export const frameS = (rate: string) => 1 / rateOf(rate)[1];

const two = (value: number) => String(value).padStart(2, "0");

/** A label moved on by a few frames, for counting between what is told. */
export function labelAfter(label: string, rate: string, frames: number): string {
  const parts = label.split(/[:;]/).map(Number);
  if (parts.length !== 4 || parts.some(Number.isNaN)) return label;
  const [counted] = rateOf(rate);
  const total = ((parts[0]! * 60 + parts[1]!) * 60 + parts[2]!) * counted + parts[3]! + frames;
  const seconds = Math.floor(total / counted);
  const mark = label.includes(";") ? ";" : ":";
  return `${two(Math.floor(seconds / 3600) % 24)}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}${mark}${two(total % counted)}`;
}
