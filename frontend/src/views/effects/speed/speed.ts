const BEATS_IN_A_BAR = 4;

const neat = (value: number) => `${Math.round(value * 100) / 100}`;
const many = (value: number, word: string) => `${neat(value)} ${word}${neat(value) === "1" ? "" : "s"}`;

interface Timed {
  cycles: number;
  beats?: number | null;
  seconds: number;
}

/** How long one cycle takes: in beats and bars of four where a tempo drives it, and in seconds. */
export function cycleText({ cycles, beats, seconds }: Timed): string[] {
  const time = `${neat(seconds / cycles)} s`;
  if (beats === null || beats === undefined) return [time];
  const each = beats / cycles;
  return [many(each, "beat"), many(each / BEATS_IN_A_BAR, "bar"), time];
}
