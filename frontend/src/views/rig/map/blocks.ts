import type { Fixture, Rig } from "../../../api/rig";

export const SLOTS = 512;
/** The part of a fixture that lies in one universe: slots from `first` (0…511) on. */
export interface Block {
  number: number;
  universe: number;
  first: number;
  size: number;
}

/** What fixtures take, in the universes that they lie in. */
export function blocksOf(rig: Rig): Block[] {
  return rig.fixtures.flatMap((fixture) =>
    blocksOfFixture(fixture, rig.modes.get(fixture.mode_id)?.footprint ?? 1),
  );
}

function blocksOfFixture({ number, universe, address }: Fixture, footprint: number): Block[] {
  if (universe === null || address === null) return [];
  const blocks: Block[] = [];
  for (let first = address - 1, left = footprint, at = universe; left > 0; at++, first = 0) {
    const size = Math.min(left, SLOTS - first);
    blocks.push({ number, universe: at, first, size });
    left -= size;
  }
  return blocks;
}

export interface Strip {
  universe: number;
  blocks: Block[];
  free: number;
}

/** Every universe that something lies in, and one more that is free. */
export function strips(blocks: readonly Block[]): Strip[] {
  const by = new Map<number, Block[]>();
  for (const block of blocks) by.set(block.universe, [...(by.get(block.universe) ?? []), block]);
  const next = Math.max(0, ...by.keys()) + 1;
  return [...by.keys(), next]
    .sort((a, b) => a - b)
    .map((universe) => {
      const own = (by.get(universe) ?? []).sort((a, b) => a.first - b.first);
      let taken = 0;
      let end = 0;
      for (const { first, size } of own) {
        taken += Math.max(0, first + size - Math.max(end, first));
        end = Math.max(end, first + size);
      }
      return { universe, blocks: own, free: SLOTS - taken };
    });
}

export const ROW_PX = 30;
export const LABEL_PX = 34;
export const NOTE_PX = 84;

/** Where a slot is along a strip, in pixels. */
export const slotX = (slot: number, width: number) =>
  LABEL_PX + (slot / SLOTS) * Math.max(width - LABEL_PX - NOTE_PX, 1);

/** The strip and slot at a point. */
export function placeAt(x: number, y: number, width: number) {
  const slot = Math.round(((x - LABEL_PX) / Math.max(width - LABEL_PX - NOTE_PX, 1)) * SLOTS);
  return { row: Math.floor(y / ROW_PX), slot: Math.min(Math.max(slot, 0), SLOTS - 1) };
}

/** The block at a point, the last drawn first. */
export function blockAt(all: readonly Strip[], x: number, y: number, width: number): Block | null {
  const { row } = placeAt(x, y, width);
  const found = all[row]?.blocks.filter(
    ({ first, size }) => x >= slotX(first, width) && x <= slotX(first + size, width),
  );
  return found?.at(-1) ?? null;
}

/** A strip in words, for those who hear it. */
export function inWords({ universe, blocks, free }: Strip): string {
  if (!blocks.length) return `Universe ${universe}: nothing`;
  const each = blocks.map(({ number, first, size }) => `${number} at ${first + 1} to ${first + size}`);
  return `Universe ${universe}: ${each.join(", ")}; ${free} free`;
}
