import type { Palette } from "../../../api/palettes";

export const FAMILY_NAMES: Record<string, string> = {
  intensity: "Intensity",
  position: "Position",
  colour: "Colour",
  beam: "Beam",
  mixed: "Mixed",
};
const ORDER = Object.keys(FAMILY_NAMES);

export interface Shelf {
  title: string;
  palettes: Palette[];
}

/** The one colour of a palette of colours, `#rrggbb`; null: it has none, or several. */
export function colourOf({ family, picture }: Palette): string | null {
  return family === "colour" && picture.colours.length === 1 ? picture.colours[0]! : null;
}

/** Whether a palette has all the words. */
function matches({ name, family, set }: Palette, words: string[]): boolean {
  const text = `${name} ${family} ${set}`.toLowerCase();
  return words.every((word) => text.includes(word));
}

/** Palettes in rows: by family, and each set apart. */
export function shelves(palettes: Palette[], search: string): Shelf[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = new Map<string, Palette[]>();
  const inOrder = [...palettes].sort((a, b) => ORDER.indexOf(a.family) - ORDER.indexOf(b.family));
  for (const one of inOrder) {
    if (!matches(one, words)) continue;
    const title = one.set || FAMILY_NAMES[one.family]!;
    found.set(title, [...(found.get(title) ?? []), one]);
  }
  return [...found].map(([title, row]) => ({ title, palettes: row }));
}

/** Where a palette acts: on all, some or none of the selected heads. */
export function actsIn(count: number | undefined, of: number): string {
  if (!of) return "";
  return count === undefined || count >= of ? "" : count ? `${count} of ${of}` : "none of these";
}
