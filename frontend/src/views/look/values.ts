import type { Schemas } from "../../api/client";

export type Value = Schemas["BaseValueView"];
export const FAMILIES = ["intensity", "position", "beam"] as const;

const rounded = (value: number) => String(Math.round(value * 10) / 10).replace("-", "−");

/** A value, or from where to where it goes over the heads. */
export function inWords({ least, most, mixed }: Pick<Value, "least" | "most" | "mixed">): string {
  return mixed ? `${rounded(least)} … ${rounded(most)}` : rounded(least);
}

/** How many of the chosen heads have it, where not all have. */
export function lacking({ heads }: Pick<Value, "heads">, chosen: number): string {
  return heads.length < chosen ? `${heads.length} of ${chosen} have it` : "";
}

/** By how much a key changes a value, more with Shift, less with Alt; null: it is no such key. */
export function stepOf(key: string, { shiftKey, altKey }: Keys): number | null {
  if (key !== "ArrowUp" && key !== "ArrowDown") return null;
  return (key === "ArrowUp" ? 1 : -1) * (shiftKey ? 10 : altKey ? 0.1 : 1);
}
type Keys = { shiftKey: boolean; altKey: boolean };

/** Whether a key begins a value that is typed. */
export const beginsValue = (key: string) => /^[0-9+\-−.,]$/.test(key);

export const headsInWords = (count: number) => `${count} head${count === 1 ? "" : "s"}`;

type Listed = Pick<Schemas["DraftedView"], "label" | "attributes" | "heads">;
/** What is set by hand, head by head: all that each has, in words, and the attributes to take out. */
export function byHead(listed: Listed[]): { head: string; attributes: string[]; words: string }[] {
  const found = new Map<string, { attributes: string[]; labels: string[] }>();
  for (const { label, attributes, heads } of listed)
    for (const head of heads) {
      const known = found.get(head) ?? { attributes: [], labels: [] };
      known.attributes.push(...attributes);
      known.labels.push(label.toLowerCase());
      found.set(head, known);
    }
  const order = [...found].sort(([a], [b]) => a.localeCompare(b, "en", { numeric: true }));
  return order.map(([head, { attributes, labels }]) => ({ head, attributes, words: labels.join(", ") }));
}
