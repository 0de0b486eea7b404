import type { Schemas } from "./client";

/** A head: its fixture, place in metres, what it can do. */
export interface Head {
  key: string;
  fixture: number;
  /** Number of the cell; 0: the fixture itself. */
  cell: number;
  kind: string;
  place: [number, number, number];
  attributes: string[];
  /** Whether it is a fixture beside its cells, which give the light. */
  leads: boolean;
}
export type Fixture = Schemas["FixtureView"];
export type Mode = Schemas["ModeView"];
export interface Rig {
  /** As in the header of live frames, whose heads come in this order. */
  number: number;
  fixtures: Fixture[];
  modes: Map<number, Mode>;
  heads: Head[];
  /** Heads of each fixture. */
  of: Map<number, Head[]>;
  /** Place of each head in live frames, by its key. */
  index: Map<string, number>;
}

/** The rig as the page uses it, from what the server tells in short: heads by fixture, then by the parts of its mode. */
export function rigOf(view: Schemas["RigView"]): Rig {
  const modes = new Map(view.modes.map((mode) => [mode.id, mode]));
  const heads: Head[] = [];
  const of = new Map<number, Head[]>();
  for (const { number, mode_id } of view.fixtures) {
    const { kind, cells, parts } = modes.get(mode_id)!;
    const own: Head[] = [];
    of.set(number, own);
    for (const { part, attributes } of parts) {
      const [x, y, z] = view.places.slice(3 * heads.length, 3 * heads.length + 3);
      const head: Head = {
        key: part ? `${number}.${part}` : String(number),
        fixture: number,
        cell: part,
        kind,
        place: [x!, y!, z!],
        attributes,
        leads: part === 0 && cells > 0,
      };
      heads.push(head);
      own.push(head);
    }
  }
  const index = new Map(heads.map((head, n) => [head.key, n]));
  return { number: view.number, fixtures: view.fixtures as Fixture[], modes, heads, of, index };
}

/** Heads of fixtures as they are taken: each as one light (its own head, or its cells together), or as its cells. */
export function takenAs(rig: Rig, fixtures: Iterable<number>, cells: boolean): string[] {
  const keys: string[] = [];
  for (const number of fixtures) {
    const own = rig.of.get(number) ?? [];
    const leader = own.find((head) => head.leads);
    if (leader && !cells) keys.push(leader.key);
    else for (const head of own) if (!head.leads) keys.push(head.key);
  }
  return keys;
}

/** Numbers of the fixtures that these heads are of, in their order, each once. */
export const fixturesOf = (keys: readonly string[]) => [...new Set(keys.map((key) => parseInt(key, 10)))];
