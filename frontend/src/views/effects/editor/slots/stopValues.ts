/** Where a stop goes: a number, `#rrggbb`, `base`, or a palette by its name. */
export type StopGoal = number | string | { palette: string };

/** Name of the palette that a stop goes to, or null. */
export const paletteOf = (value: StopGoal): string | null =>
  typeof value === "object" ? value.palette : null;

/** The key of a choice for a stop's goal: `own`, `base`, or `palette ` and a name. */
export function valueKey(value: StopGoal): string {
  if (typeof value === "object") return `palette ${value.palette}`;
  return value === "base" ? "base" : "own";
}

/** The goal for such a key; an own colour begins as the colour shown before. */
export function valueOf(key: string, colour: string): StopGoal {
  if (key === "base") return "base";
  return key === "own" ? colour : { palette: key.slice("palette ".length) };
}

/** The background that shows a swatch: a colour, `base` (hatched), or `palette ` and a name. */
export function swatchOf(
  swatch: string,
  palettes: { name: string; document: Record<string, unknown> }[],
): string {
  if (!swatch.startsWith("palette ")) return swatch === "base" ? "var(--hatch)" : swatch;
  const colour = palettes.find((one) => `palette ${one.name}` === swatch)?.document["colour"];
  return typeof colour === "string" ? colour : "var(--hatch)";
}
