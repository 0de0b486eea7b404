import type { Schemas } from "../../api/client";

export type Value = Schemas["BaseValueView"];
export const FAMILIES = ["intensity", "position", "beam"] as const;

const rounded = (value: number) => String(Math.round(value * 10) / 10).replace("-", "−");

/** A value, or from where to where it goes over the heads. */
export function inWords({ least, most, mixed }: Pick<Value, "least" | "most" | "mixed">): string {
  return mixed ? `${rounded(least)} … ${rounded(most)}` : rounded(least);
}

/** From what a value comes. */
export function sourceOf({ by_hand, heads }: Pick<Value, "by_hand" | "heads">): string {
  if (!by_hand) return "home";
  return by_hand === heads.length ? "draft" : `draft, ${heads.length - by_hand} home`;
}

/** How many of the chosen heads have it, where not all have. */
export function lacking({ heads }: Pick<Value, "heads">, chosen: number): string {
  return heads.length < chosen ? `${heads.length} of ${chosen} have it` : "";
}

/** By how much a key changes a value; null: it is no such key. */
export function stepOf(key: string, shift: boolean): number | null {
  if (key !== "ArrowUp" && key !== "ArrowDown") return null;
  return (key === "ArrowUp" ? 1 : -1) * (shift ? 10 : 1);
}

/** Whether a key begins a value that is typed. */
export const beginsValue = (key: string) => /^[0-9+\-−.,]$/.test(key);
