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
}

/** The rig as the page uses it, from what the server tells in short: heads by fixture, then by the parts of its mode. */
export function rigOf(view: Schemas["RigView"]): Rig {
  const modes = new Map(view.modes.map((mode) => [mode.id, mode]));
  const heads: Head[] = [];
  for (const { number, mode_id } of view.fixtures) {
    const { kind, cells, parts } = modes.get(mode_id)!;
    for (const { part, attributes } of parts) {
      const [x, y, z] = view.places.slice(3 * heads.length, 3 * heads.length + 3);
      heads.push({
        key: part ? `${number}.${part}` : String(number),
        fixture: number,
        cell: part,
        kind,
        place: [x!, y!, z!],
        attributes,
        leads: part === 0 && cells > 0,
      });
    }
  }
  return { number: view.number, fixtures: view.fixtures as Fixture[], modes, heads };
}

/** Heads of a fixture as it is taken: as one light (its own head, or its cells together), or as its cells. */
export function takenAs(heads: readonly Head[], fixture: number, cells: boolean): string[] {
  const own = heads.filter((head) => head.fixture === fixture);
  const leader = own.find((head) => head.leads);
  if (!leader) return own.map((head) => head.key);
  return cells ? own.filter((head) => !head.leads).map((head) => head.key) : [leader.key];
}
