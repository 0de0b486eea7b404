import type { BuskPad, BuskRow, Clashes, RowTold } from "../../api/busk";

/** The colour palette that a row holds and that is seen, with its name; null: none, or its lights are dark. */
export interface HeldColour {
  row: number;
  rowName: string;
  palette: number;
  name: string;
}

/** Colours that rows hold, of those whose lights are lit and not covered. */
export function heldColours(rows: readonly BuskRow[], told: readonly RowTold[]): HeldColour[] {
  return rows.flatMap((row) => {
    const now = told.find((one) => one.id === row.id);
    if (!now || now.dark || row.kind !== "lights") return [];
    return now.held.flatMap(({ pad, covered }) => {
      const found = row.colour.find((one) => one.id === pad);
      return found?.palette != null && covered < 1
        ? [{ row: row.id, rowName: row.name, palette: found.palette, name: found.name }]
        : [];
    });
  });
}

/** The row beside whose colour a pad would be hard on the eye; null: none. */
export function clashOf(
  pad: BuskPad,
  row: Pick<BuskRow, "id">,
  held: readonly HeldColour[],
  clashes: Clashes,
): HeldColour | null {
  const hard = pad.palette === null ? undefined : clashes[pad.palette];
  return held.find((one) => one.row !== row.id && hard?.includes(one.palette)) ?? null;
}

/** Text of a time that is left: `1.2 s`, `waits` while nothing counts. */
export const left = (due: number | null, now: number) =>
  due === null ? "waits" : `${Math.max(0, due - now).toFixed(1)} s`;
