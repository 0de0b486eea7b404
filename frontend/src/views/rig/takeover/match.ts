import type { Pair } from "../../../api/rerig";

/** Where a light is drawn, 0…1 along its row. */
export const along = (index: number, count: number) => (index + 0.5) / count;

/** The light of a row of so many that is nearest to a place along it. */
export const nearest = (place: number, count: number) =>
  Math.min(count - 1, Math.max(0, Math.floor(place * count)));

/** A match by hand in which one light stands for another, or for none (−1). */
export const withMatch = (pair: Pair, match: readonly number[], light: number, from: number): Pair => ({
  ...pair,
  way: "hand",
  match: match.map((one, n) => (n === light ? from : one)),
});

/** How many lights of the source somebody stands for. */
export const followed = (match: readonly number[]) => new Set(match.filter((one) => one >= 0)).size;

/** In words: what a light stands for. */
export function standsFor(light: number, from: number | undefined): string {
  return from === undefined ? `${light} takes over from none` : `${light} takes over from ${from}`;
}

/** What changes, by what it is, in its order. */
export function grouped<One extends { what: string }>(changes: readonly One[]): [string, One[]][] {
  const found = new Map<string, One[]>();
  for (const one of changes) found.set(one.what, [...(found.get(one.what) ?? []), one]);
  return [...found];
}
