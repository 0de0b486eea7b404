/** Where the slots of a universe are drawn, and what stands in them. Pure. */

export interface SlotFixture {
  number: number;
  name: string;
  mode: string;
  address: number;
  channels: string[];
}
export interface Cell {
  slot: number;
  x: number;
  y: number;
  /** What it does, where there is room to say so. */
  name: string;
  fixture: SlotFixture | null;
}
export interface Heading {
  text: string;
  y: number;
  fixture: SlotFixture;
}
export interface Layout {
  cells: Cell[];
  headings: Heading[];
  cellWidth: number;
  cellHeight: number;
  height: number;
}
export type Format = "decimal" | "percent" | "hexadecimal";

/** What is said of a slot of a fixture that does nothing. */
export const UNUSED = "not used";
const SLOTS = 512;
const FREE_ROW_PX = 34;
const FIXTURE_ROW_PX = 38;
const HEADING_PX = 26;
const NAMED_PX = 94;
const GAP_PX = 6;

/** The fixture that a slot (1…512) belongs to. */
export function fixtureAt(fixtures: readonly SlotFixture[], slot: number): SlotFixture | null {
  return fixtures.find((one) => slot >= one.address && slot < one.address + one.channels.length) ?? null;
}

/** What a slot is, in words. */
export function ownerOf(fixtures: readonly SlotFixture[], slot: number): string {
  const fixture = fixtureAt(fixtures, slot);
  if (!fixture) return "free";
  return `${fixture.number} ${fixture.name}, ${fixture.channels[slot - fixture.address] || UNUSED}`;
}

/** All slots, so many in a row. */
export function freeLayout(fixtures: readonly SlotFixture[], perRow: number, width: number): Layout {
  const owners = new Array<SlotFixture | null>(SLOTS).fill(null);
  for (const one of fixtures)
    one.channels.forEach((_, n) => one.address - 1 + n < SLOTS && (owners[one.address - 1 + n] = one));
  const cellWidth = width / perRow;
  const cells = owners.map((fixture, index) => ({
    slot: index + 1,
    x: (index % perRow) * cellWidth,
    y: Math.floor(index / perRow) * FREE_ROW_PX,
    name: "",
    fixture,
  }));
  const height = Math.ceil(SLOTS / perRow) * FREE_ROW_PX;
  return { cells, headings: [], cellWidth, cellHeight: FREE_ROW_PX, height };
}

/** The slots of each fixture under its name, with what each does. Slots that nothing uses are left out. */
export function fixtureLayout(fixtures: readonly SlotFixture[], width: number): Layout {
  const perRow = Math.max(1, Math.floor(width / NAMED_PX));
  const cellWidth = width / perRow;
  const cells: Cell[] = [];
  const headings: Heading[] = [];
  let y = 0;
  for (const fixture of fixtures) {
    const last = fixture.address + fixture.channels.length - 1;
    headings.push({
      text: `${fixture.number} ${fixture.name} · ${fixture.mode} · ${fixture.address}–${last}`,
      y,
      fixture,
    });
    y += HEADING_PX;
    const within = fixture.channels.slice(0, SLOTS + 1 - fixture.address);
    within.forEach((name, n) =>
      cells.push({
        slot: fixture.address + n,
        x: (n % perRow) * cellWidth,
        y: y + Math.floor(n / perRow) * FIXTURE_ROW_PX,
        name: name || UNUSED,
        fixture,
      }),
    );
    y += Math.ceil(within.length / perRow) * FIXTURE_ROW_PX + GAP_PX;
  }
  return { cells, headings, cellWidth, cellHeight: FIXTURE_ROW_PX, height: Math.max(y, HEADING_PX) };
}

/** The cell at a point; null beside them. */
export function cellAt(layout: Layout, x: number, y: number): Cell | null {
  return (
    layout.cells.find(
      (cell) => x >= cell.x && x < cell.x + layout.cellWidth && y >= cell.y && y < cell.y + layout.cellHeight,
    ) ?? null
  );
}

/** A value as it is shown. */
export function shown(value: number, format: Format): string {
  if (format === "percent") return `${Math.round((value / 255) * 100)}`;
  return format === "hexadecimal" ? value.toString(16).toUpperCase().padStart(2, "0") : String(value);
}

/** Whether a fixture is looked for: by its number, or by words of its name or mode. Nothing is looked for: all are. */
export function isFound(fixture: SlotFixture | null, words: string): boolean {
  const asked = words.trim().toLowerCase();
  if (!asked) return true;
  if (!fixture) return false;
  return `${fixture.number} ${fixture.name} ${fixture.mode}`.toLowerCase().includes(asked);
}

/** So many frames must be there before anything is said to differ: a node is asked once a second. */
const ENOUGH_FRAMES = 30;

/** Slots (from 0 on) where a node says something that was not sent in the frames before. */
export function differing(sent: readonly Uint8Array[], got: ArrayLike<number>): Set<number> {
  const found = new Set<number>();
  if (sent.length < ENOUGH_FRAMES) return found;
  for (let slot = 0; slot < Math.min(SLOTS, got.length); slot++) {
    let low = 255;
    let high = 0;
    for (const frame of sent) {
      low = Math.min(low, frame[slot]!);
      high = Math.max(high, frame[slot]!);
    }
    if (got[slot]! < low || got[slot]! > high) found.add(slot);
  }
  return found;
}
