import type { Schemas } from "../../../api/client";

/** On which heads an effect is looked at: its own, the selection, a group, or a made-up row of heads. */
export type SeenOn =
  { kind: "own" } | { kind: "selection" } | { kind: "group"; id: number } | { kind: "row"; count: number };

export const ROWS = [1, 2, 5, 8, 10, 12, 16, 24, 50];
export const USUAL_ROW = 10;

interface Known {
  /** Heads that it runs on; none where it does not run. */
  own: string[];
  selection: string[];
  groups: readonly Schemas["GroupView"][];
}

/** Heads to look at, and the length of the made-up row where there are none. */
export function headsSeen(seen: SeenOn, known: Known): { heads: string[]; phantom: number } {
  if (seen.kind === "row") return { heads: [], phantom: seen.count };
  const heads = {
    own: () => (known.own.length ? known.own : known.selection),
    selection: () => known.selection,
    group: () => known.groups.find((one) => seen.kind === "group" && one.id === seen.id)?.heads ?? [],
  }[seen.kind]();
  return { heads, phantom: USUAL_ROW };
}

const count = (heads: number) => `${heads} head${heads === 1 ? "" : "s"}`;

/** What can be chosen, in words. */
export function seenOptions(known: Known): { id: string; text: string }[] {
  const { own, selection, groups } = known;
  const first = own.length
    ? { id: "own", text: `Its own ${count(own.length)}` }
    : {
        id: "own",
        text: selection.length ? `The selection: ${count(selection.length)}` : `A row of ${USUAL_ROW}`,
      };
  const more =
    own.length && selection.length
      ? [{ id: "selection", text: `The selection: ${count(selection.length)}` }]
      : [];
  return [
    first,
    ...more,
    ...groups.map((one) => ({ id: `group:${one.id}`, text: `${one.name}: ${count(one.heads.length)}` })),
    ...ROWS.map((n) => ({ id: `row:${n}`, text: `A made-up row of ${n}` })),
  ];
}

export const seenKey = (seen: SeenOn) =>
  seen.kind === "group" ? `group:${seen.id}` : seen.kind === "row" ? `row:${seen.count}` : seen.kind;

/** The way back from a key. */
export function seenFrom(key: string): SeenOn {
  const [kind, number] = key.split(":");
  if (kind === "group") return { kind, id: Number(number) };
  if (kind === "row") return { kind, count: Number(number) };
  return kind === "selection" ? { kind } : { kind: "own" };
}
