import type { SpecialTold } from "../../../api/specials";

const WORDS: Record<string, string> = {
  "to dark": "going dark",
  moving: "moving in the dark",
  opening: "opening",
  on: "on",
  "home to dark": "home: going dark",
  "home moving": "home: moving in the dark",
  "home opening": "home: opening",
};

const SHORT: Record<string, string> = { ...WORDS, moving: "in the dark", "home moving": "home: dark" };

/** How far a special is, in words; empty: all its lights are in the look. */
export function phaseWords(told: SpecialTold, now: number, narrow = false): string {
  const words = (narrow ? SHORT : WORDS)[told.phase] ?? "";
  if (told.phase === "on" && told.lights < told.of) return `on, ${told.lights} of ${told.of} lights`;
  return words && told.until != null ? `${words}, ${Math.max(told.until - now, 0).toFixed(1)} s` : words;
}

/** Whether any light of a special shows it, or is on its way. */
export const isActive = (told: SpecialTold) => told.phase !== "off";
