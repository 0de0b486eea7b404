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

/** Labels that are left out at the beginning of each minute that is no tenth, so that labels keep pace with the clock. */
const LEFT_OUT = 2;
const DAY_MIN = 24 * 60;

/** A label moved on by a few frames, for counting between what is told. */
export function labelAfter(label: string, rate: string, frames: number): string {
  const parts = label.split(/[:;]/).map(Number);
  if (parts.length !== 4 || parts.some(Number.isNaN)) return label;
  const [hours, minutes, seconds, own] = parts as [number, number, number, number];
  const [counted] = rateOf(rate);
  const drops = rate.endsWith("drop");
  const left = (minute: number) => (drops && minute % 10 ? LEFT_OUT : 0);
  let minute = hours * 60 + minutes;
  let frame = seconds * counted + own + frames; // within that minute, counted from label 0
  while (frame >= 60 * counted) {
    frame -= 60 * counted;
    minute = (minute + 1) % DAY_MIN;
    frame += left(minute);
  }
  const mark = label.includes(";") ? ";" : ":";
  return `${two(Math.floor(minute / 60))}:${two(minute % 60)}:${two(Math.floor(frame / counted))}${mark}${two(frame % counted)}`;
}
