import type { Channel, KindDocument } from "../../../api/kinds";

/** Places of cells in a grid, rows from the top left, in m beside the fixture. */
export function grid(columns: number, rows: number, apart: number): [number, number, number][] {
  const middle = (columns - 1) / 2;
  const round = (value: number) => Math.round(value * 1e4) / 1e4 + 0;
  return Array.from({ length: columns * rows }, (_, n) => [
    round(((n % columns) - middle) * apart),
    round((rows - 1 - Math.floor(n / columns)) * apart),
    0,
  ]);
}

/** The points of a curve as they are typed: `0 = 39, 1 = 60`. */
export const curveText = (curve: Channel["curve"]) =>
  (curve ?? []).map(([value, level]) => `${value} = ${level}`).join(", ");

/** The points that a text says; what is wrong with it. */
export function curveOf(text: string): [number, number][] | string {
  const found: [number, number][] = [];
  for (const part of text
    .split(/[,;]/)
    .map((one) => one.trim())
    .filter(Boolean)) {
    const match = /^(-?[\d.]+)\s*=\s*(\d+)$/.exec(part);
    if (!match)
      return `“${part}” is no point. Write a value, an equals sign and a level, such as 0 = 39, 1 = 60.`;
    found.push([Number(match[1]), Number(match[2])]);
  }
  return found.sort((a, b) => a[0] - b[0]);
}

/** Channels that are listed: of the whole, and of one of the cells, each with its number among all. */
export const listed = (document: KindDocument, cell: number) =>
  document.channels
    .map((channel, at) => ({ channel, at }))
    .filter(({ channel }) => (channel.cell ?? 0) === 0 || channel.cell === cell)
    .sort((a, b) => a.channel.slots[0]! - b.channel.slots[0]!);

/** The channels of all cells that stand in the same place among those of their cell as this one. */
export function likeIt(document: KindDocument, at: number): number[] {
  const { cell = 0 } = document.channels[at]!;
  if (cell === 0) return [at];
  const rank = (n: number) => {
    const own = document.channels[n]!.cell;
    return document.channels.slice(0, n).filter((one) => one.cell === own).length;
  };
  const wanted = rank(at);
  return document.channels.flatMap((one, n) => ((one.cell ?? 0) > 0 && rank(n) === wanted ? [n] : []));
}

/** A channel changed, and with it those like it in the other cells. Slots are of that one alone. */
export function withChannel(document: KindDocument, at: number, change: Partial<Channel>): KindDocument {
  const { slots, ...others } = change;
  const alike = new Set(Object.keys(others).length ? likeIt(document, at) : []);
  const channels = document.channels.map((channel, n) => ({
    ...channel,
    ...(alike.has(n) ? others : {}),
    ...(n === at && slots ? { slots } : {}),
  }));
  return { ...document, channels };
}

/** The slots of a channel, coarse first, when it begins at another or has more or fewer bits. */
export const slotsFrom = (first: number, bytes: number) =>
  Array.from({ length: bytes }, (_, n) => first - 1 + n);

/** The first slot behind all that is used, from 1 on. */
export const behind = (document: KindDocument) =>
  1 + Math.max(0, ...document.channels.flatMap((channel) => channel.slots.map((slot) => slot + 1)));

/** Slots that no channel drives, with the levels at which they stay. */
export function resting(document: KindDocument): [number, number][] {
  const used = new Set(document.channels.flatMap((channel) => channel.slots));
  const levels = new Map(document.rests.map(([slot, level]) => [slot, level]));
  return Array.from({ length: document.footprint }, (_, slot) => slot)
    .filter((slot) => !used.has(slot))
    .map((slot) => [slot, levels.get(slot) ?? 0]);
}

export const withRest = (document: KindDocument, slot: number, level: number): KindDocument => ({
  ...document,
  rests: [...document.rests.filter(([one]) => one !== slot), [slot, level] as [number, number]]
    .filter(([, byte]) => byte > 0)
    .sort((a, b) => a[0] - b[0]),
});

/** A share 0…1 of a channel's whole range as its bytes, coarse first. */
export function bytesOf(share: number, bytes: number): number[] {
  const level = Math.round(share * (256 ** bytes - 1));
  return Array.from({ length: bytes }, (_, n) => Math.floor(level / 256 ** (bytes - 1 - n)) % 256);
}

/** Other cells: channels of those that are gone go, new ones get channels as the first cell has, behind all others. */
export function withCells(
  document: KindDocument,
  places: [number, number, number][],
  colours: readonly string[],
): KindDocument {
  const divided = document.cells.length ? document : firstCell(document, colours);
  const kept = divided.channels.filter((channel) => (channel.cell ?? 0) <= places.length);
  const first = kept.filter((channel) => channel.cell === 1);
  let slot = Math.max(document.footprint, behind({ ...divided, channels: kept }) - 1);
  if (places.length < document.cells.length) slot = behind({ ...divided, channels: kept }) - 1;
  const had = Math.max(document.cells.length, 1);
  const added = places.slice(had).flatMap((_, n) =>
    first.map((channel) => {
      const slots = slotsFrom(slot + 1, channel.slots.length);
      slot += channel.slots.length;
      return { ...channel, slots, cell: had + n + 1 };
    }),
  );
  const rests = document.rests.filter(([one]) => one < slot);
  return { ...divided, cells: places, channels: [...kept, ...added], footprint: slot, rests };
}

/** What makes the light becomes the first cell's: its colours, or its level where it has none. */
function firstCell(document: KindDocument, colours: readonly string[]): KindDocument {
  const coloured = document.channels.some((channel) => colours.includes(channel.source));
  const goes = (source: string) => (coloured ? colours.includes(source) : source === "intensity");
  return {
    ...document,
    channels: document.channels.map((one) => ({ ...one, cell: goes(one.source) ? 1 : 0 })),
  };
}

/** One light again: as the first cell is. */
export function withoutCells(document: KindDocument): KindDocument {
  const channels = document.channels
    .filter((channel) => (channel.cell ?? 0) <= 1)
    .map((channel) => ({ ...channel, cell: 0 }));
  const footprint = behind({ ...document, channels }) - 1;
  const rests = document.rests.filter(([slot]) => slot < footprint);
  return { ...document, cells: [], channels, footprint, rests };
}

const part = (value: number) =>
  Math.round(Math.min(Math.max(value, 0), 1) * 255)
    .toString(16)
    .padStart(2, "0");
export const asHex = (drive: readonly number[]) => `#${drive.map(part).join("")}`;
export const fromHex = (text: string): [number, number, number] => {
  const [red, green, blue] = [1, 3, 5].map((at) =>
    Number((parseInt(text.slice(at, at + 2), 16) / 255).toFixed(4)),
  );
  return [red!, green!, blue!];
};

/** What a mode is called without its model. */
export const labelOf = ({ name, model }: KindDocument) =>
  model && name.startsWith(`${model}, `) ? name.slice(model.length + 2) : name;

/** Another maker, model or mode; its whole name follows. */
export function renamed(
  document: KindDocument,
  field: "maker" | "model" | "label",
  text: string,
): KindDocument {
  if (field === "maker") return { ...document, maker: text };
  const model = field === "model" ? text : document.model;
  const label = field === "label" ? text : labelOf(document);
  return { ...document, model, name: model ? `${model}, ${label}` : label };
}
