import { create } from "zustand";

import type { Bakeable } from "./api/bakes";
import type { SeenOn } from "./views/effects/weave/seen";

export const VIEWS = ["rig", "look", "effects", "pixels", "cues", "busk", "timeline", "output"] as const;
export type View = (typeof VIEWS)[number];
export const VIEW_TITLES: Record<View, string> = {
  rig: "Rig",
  look: "Look",
  effects: "Effects",
  pixels: "Pixels",
  cues: "Cues",
  busk: "Busk",
  timeline: "Timeline",
  output: "Output",
};
/** How much of the page the stage takes; each view remembers its own. */
export const STAGE_SIZES = ["hidden", "thin", "strip", "tall", "full"] as const;
export type StageSize = (typeof STAGE_SIZES)[number];

/** The parts of the Output view. */
export type OutputTab = "slots" | "routes" | "devices" | "recordings" | "timecode" | "simulators" | "health";

interface Desk {
  view: View;
  outputTab: OutputTab;
  /** Head keys, in their order. */
  selection: string[];
  /** How it was ordered last, in words. */
  order: string;
  /** Whether fixtures are taken as their cells, each a light of its own. */
  cells: boolean;
  stages: Record<View, StageSize>;
  /** In how many seconds values set by hand go where they go: position apart from the others. */
  fades: { position: number; others: number };
  /** The size before it filled the page. */
  before: StageSize;
  elevation: "front" | "plan";
  /** The effect in the editor, and its key among what runs when it is in the draft. */
  effect: { id: number; key: string | null } | null;
  /** The cue list that is looked at, and that Space plays; null: the first. */
  list: number | null;
  /** The cue that is looked at; null: the one that the list is on. */
  cue: number | null;
  /** Cues that were copied, to be pasted into this list or another. */
  copied: number[];
  /** On which heads it is looked at. */
  seen: SeenOn;
  /** By which attribute it is woven: `look`, as it will look. */
  wovenBy: string;
  /** The value whose whole way to the stage is told. */
  why: { head: string; attribute: string | null } | null;
  /** Heads that cannot reach what they are aimed at: marked on the stage. */
  unreached: string[];
  /** Whether the next light that is pointed at on the stage is asked about. */
  asking: boolean;
  /** Which light is broken, while one is pointed at that stands in for it; `first`: the broken one is pointed at; null: neither. */
  standing: number | "first" | null;
  /** What is being baked. */
  baking: Bakeable | null;
  /** Whether an effect of the library is seen on stage while the pointer rests on it. */
  auditions: boolean;
  /** The busking page that is shown; null: the first, and 0: the faders and buttons. */
  busk: number | null;
  /** The page of faders and buttons that is shown; null: the first. */
  bank: number | null;
  /** Whether the shows are listed, in place of the view. */
  shows: boolean;
}

/** What this window shows and has chosen; nothing of the show is kept here. */
export const useDesk = create<Desk>(() => ({
  view: "effects",
  outputTab: "slots",
  selection: [],
  order: "as picked",
  cells: false,
  stages: {
    rig: "strip",
    look: "strip",
    effects: "strip",
    pixels: "thin",
    cues: "thin",
    busk: "thin",
    timeline: "thin",
    output: "strip",
  },
  fades: { position: 0, others: 0 },
  before: "strip",
  elevation: "front",
  effect: null,
  list: null,
  cue: null,
  copied: [],
  seen: { kind: "own" },
  wovenBy: "look",
  why: null,
  unreached: [],
  asking: false,
  standing: null,
  baking: null,
  auditions: true,
  busk: null,
  bank: null,
  shows: false,
}));

export const desk = {
  select: (selection: string[], order = "as picked") => useDesk.setState({ selection, order }),
  show: (view: View) => useDesk.setState({ view, shows: false }),
  openShows: (shows: boolean) => useDesk.setState({ shows }),
  showOutput: (outputTab: OutputTab) => useDesk.setState({ view: "output", outputTab, shows: false }),
  /** Make the stage of this view another size; full for the second time: as it was before. */
  size: (stage: StageSize) =>
    useDesk.setState(({ view, stages, before }) => {
      const now = stage === "full" && stages[view] === "full" ? before : stage;
      return { stages: { ...stages, [view]: now }, before: stages[view] === "full" ? before : stages[view] };
    }),
  /** Tell why a value of a head is what it is; without an attribute, the first that it has. */
  ask: (why: Desk["why"]) => useDesk.setState({ why, asking: false }),
  /** Point at a broken light, and at the one that stands in for it; or no more. */
  standIn: (standing: Desk["standing"]) => useDesk.setState({ standing, asking: false }),
  bake: (baking: Desk["baking"]) => useDesk.setState({ baking }),
  fade: (fades: Partial<Desk["fades"]>) =>
    useDesk.setState((state) => ({ fades: { ...state.fades, ...fades } })),
  openList: (list: number, cue: number | null = null) => useDesk.setState({ list, cue, view: "cues" }),
  open: (id: number, key: string | null) =>
    useDesk.setState({ effect: { id, key }, seen: { kind: "own" }, wovenBy: "look" }),
};

/** How large the stage is in the view that is shown. */
export const useStageSize = () => useDesk(({ stages, view }) => stages[view]);
