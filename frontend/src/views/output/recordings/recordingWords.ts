/** A length in minutes and seconds, `3:05`. */
export const clock = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, "0")}`;

const UNITS = ["bytes", "kB", "MB", "GB", "TB"];

/** A size in the unit that suits it. */
export function bytes(size: number): string {
  let [value, unit] = [size, 0];
  while (value >= 1000 && unit < UNITS.length - 1) [value, unit] = [value / 1000, unit + 1];
  return `${unit && value < 100 ? value.toPrecision(2) : Math.round(value)} ${UNITS[unit]}`;
}

/** For how long there is room, at the rate at which a recording has grown; empty where that is not known yet. */
export function roomFor(room: number, size: number, seconds: number): string {
  if (seconds < 2 || size <= 0) return "";
  const hours = (room * seconds) / size / 3600;
  return hours > 48
    ? "room for days"
    : hours >= 1
      ? `room for ${Math.floor(hours)} h`
      : `room for ${Math.floor(hours * 60)} min`;
}
