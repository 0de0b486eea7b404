/** Where the slots of a universe are drawn. Pure. */

/** Rows, and width of a cell in pixels, for `perRow` slots over a width. */
export function layout(width: number, perRow: number): { rows: number; cell: number } {
  return { rows: Math.ceil(512 / perRow), cell: width / perRow };
}

/** Number (1…512) of the slot at a point; null beside them. */
export function cellAt(
  x: number,
  y: number,
  width: number,
  perRow: number,
  rowHeight: number,
): number | null {
  const column = Math.floor(x / (width / perRow));
  const slot = Math.floor(y / rowHeight) * perRow + column + 1;
  return column < 0 || column >= perRow || slot < 1 || slot > 512 ? null : slot;
}

/** Which fixture and channel a slot (1…512) belongs to, in words; null when it is free. */
export function ownerOf(fixtures: readonly Record<string, unknown>[], slot: number): string | null {
  for (const fixture of fixtures) {
    const channels = fixture.channels as string[];
    const offset = slot - Number(fixture.address);
    if (offset < 0 || offset >= channels.length) continue;
    return `${String(fixture.number)} ${String(fixture.name)}, ${channels[offset] || "not used"}`;
  }
  return null;
}
