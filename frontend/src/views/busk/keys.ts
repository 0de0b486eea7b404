import type { Section } from "../../api/busk";

/** Letters of pads, as they stand on the keyboard: colours above, positions in the middle, effects below. Letters that do
 * something everywhere (T, F, B, W) are left out. */
export const LETTERS: Partial<Record<Section, string>> = {
  colour: "qeryuiop",
  position: "asdghjkl",
  beam: "asdghjkl",
  effects: "zxcvnm,.",
  messages: "qeryuiop",
};

/** The letter of a pad among those that are seen; empty: it has none. */
export const letterOf = (section: Section, place: number) => LETTERS[section]?.[place] ?? "";

/** The pad that a key presses: its section, of those that are shown, and its place among those that are seen. */
export function padAt(key: string, sections: readonly Section[]): { section: Section; place: number } | null {
  for (const section of sections) {
    const place = LETTERS[section]?.indexOf(key.toLowerCase()) ?? -1;
    if (key.length === 1 && place >= 0) return { section, place };
  }
  return null;
}

/** The row that a number key chooses, counted from 0: 1 the first, 0 the tenth. */
export const rowAt = (key: string) => (/^[0-9]$/.test(key) ? (Number(key) + 9) % 10 : null);
