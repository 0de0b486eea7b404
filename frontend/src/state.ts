import { create } from "zustand";

import type { SeenOn } from "./views/effects/seen";

export const VIEWS = ["rig", "effects", "busk", "output"] as const;
export type View = (typeof VIEWS)[number];
export const VIEW_TITLES: Record<View, string> = {
  rig: "Rig",
  effects: "Effects",
  busk: "Busk",
  output: "Output",
};
export type StageSize = "strip" | "tall" | "full";

interface Desk {
  view: View;
  /** Head keys, in their order. */
  selection: string[];
  /** How it was ordered last, in words. */
  order: string;
  stage: StageSize;
  elevation: "front" | "plan";
  /** The effect in the editor, and its key among what runs when it is in the draft. */
  effect: { id: number; key: string | null } | null;
  /** On which heads it is looked at. */
  seen: SeenOn;
  /** By which attribute it is woven: `look`, as it will look. */
  wovenBy: string;
  /** Whether an effect of the library is seen on stage while the pointer rests on it. */
  auditions: boolean;
}

/** What this window shows and has chosen; nothing of the show is kept here. */
export const useDesk = create<Desk>(() => ({
  view: "effects",
  selection: [],
  order: "as picked",
  stage: "strip",
  elevation: "front",
  effect: null,
  seen: { kind: "own" },
  wovenBy: "look",
  auditions: true,
}));

export const desk = {
  select: (selection: string[], order = "as picked") => useDesk.setState({ selection, order }),
  show: (view: View) => useDesk.setState({ view }),
  open: (id: number, key: string | null) =>
    useDesk.setState({ effect: { id, key }, seen: { kind: "own" }, wovenBy: "look" }),
};
