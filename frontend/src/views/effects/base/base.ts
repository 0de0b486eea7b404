import { useMemo } from "react";

import { api, take, type Schemas } from "../../../api/client";
import { refresh, tell } from "../../../api/queries";
import { useDesk } from "../../../state";

type Head = Schemas["HeadView"];
type Values = Record<string, Record<string, number>>;

export interface Base {
  attribute: string;
  heads: string[];
  low: number;
  high: number;
  value: number;
  /** Whether all heads have this value, set by hand. */
  set: boolean;
  mixed: boolean;
}

/** What the selection has of an attribute: its range, the first head's value, whether it was set. */
export function baseOf(
  attribute: string,
  heads: readonly Head[],
  rig: Schemas["RigView"],
  values: Values,
): Base | null {
  const able = heads.filter((head) => head.attributes.includes(attribute));
  const first = able[0];
  if (!first) return null;
  const modes = new Map(rig.fixtures.map((fixture) => [fixture.number, fixture.mode]));
  const limits = able.map((head) => rig.limits[modes.get(head.fixture)!]![attribute]!);
  const each = able.map((head, n) => values[attribute]?.[head.key] ?? limits[n]![2]);
  return {
    attribute,
    heads: able.map((head) => head.key),
    low: Math.max(...limits.map((limit) => limit[0])),
    high: Math.min(...limits.map((limit) => limit[1])),
    value: each[0]!,
    set: able.every((head) => head.key in (values[attribute] ?? {})),
    mixed: each.some((value) => Math.abs(value - each[0]!) > 1e-6),
  };
}

/** The same value for all heads. */
export const forAll = (heads: readonly string[], value: number | null) =>
  Object.fromEntries(heads.map((key) => [key, value]));

export interface BaseEdit {
  preview: (values: Record<string, Record<string, number | null>>) => void;
  commit: (values: Record<string, Record<string, number | null>>, label: string) => Promise<void>;
  takeBack: (values: Values) => void;
}

type Change = Record<string, Record<string, number | null>>;

function post(values: Change, preview: boolean, label: string) {
  // the generated type of a map of maps is narrower than the document says
  const body = { values, preview, label } as unknown as Schemas["DraftValues"];
  return take(api.POST("/api/draft/values", { body }));
}

/** Previews one at a time; of those that come in meanwhile only the newest. */
class Previews {
  private busy = false;
  private waiting: Change | null = null;

  async show(values: Change) {
    this.waiting = values;
    if (this.busy) return;
    this.busy = true;
    try {
      while (this.waiting) {
        const next: Change = this.waiting;
        this.waiting = null;
        await post(next, true, "");
      }
    } catch (error) {
      tell(error);
    } finally {
      this.busy = false;
    }
  }
  drop() {
    this.waiting = null;
  }
}

/** Ways to set base values: previews while a control moves (newest wins), one edit when it is let go. */
export function useBase(): BaseEdit {
  return useMemo(() => {
    const previews = new Previews();
    async function commit(values: Change, label: string) {
      previews.drop();
      await post(values, false, label).catch(tell);
      refresh();
    }
    return {
      preview: (values) => void previews.show(values),
      commit,
      takeBack: (values) => {
        const { selection } = useDesk.getState();
        const back = Object.fromEntries(
          Object.entries(values).map(([name, heads]) => [
            name,
            forAll(
              selection.filter((key) => key in heads),
              null,
            ),
          ]),
        );
        void commit(back, "Take back values");
      },
    };
  }, []);
}
