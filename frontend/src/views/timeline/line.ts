import { create } from "zustand";

import type { SongTold } from "../../api/timelines";
import { engineNow } from "../../live/clock";
import { wake } from "../../live/loop";
import { act, useLive } from "../../live/socket";
import type { Snap, Span } from "./scale";

interface Line {
  /** The song that is shown; null: the one on stage, else the first. */
  song: number | null;
  /** Events that are chosen, in the line and in the list alike. */
  chosen: ReadonlySet<number>;
  /** Events that were copied, and those of them that go once they are pasted: they were cut. */
  copied: number[];
  cut: number[];
  snap: Snap;
  /** Whether what is seen goes along with the playhead. */
  follows: boolean;
  /** Whether a dragged playhead is sent to the stage. */
  scrubsOnStage: boolean;
  /** Whether a new pass of recording takes the place of what is there. */
  replaces: boolean;
  /** Whether parts and bars are moved on the line, instead of the playhead. */
  shapes: boolean;
  /** A message that is being made: on which track, where. */
  adding: { track: number; at: number } | null;
  /** How loud the sound is here, 0…1. */
  volume: number;
}

/** What this window shows of songs. */
export const useLine = create<Line>(() => ({
  song: null,
  chosen: new Set(),
  copied: [],
  cut: [],
  snap: "beat",
  follows: true,
  scrubsOnStage: false,
  replaces: false,
  shapes: false,
  adding: null,
  volume: 0.8,
}));

/** What changes while it is dragged and played: for canvases, never in React state. */
export const seen: { span: Span; dragged: number | null } = { span: { from: 0, to: 60 }, dragged: null };

export const line = {
  choose: (ids: Iterable<number>) => useLine.setState({ chosen: new Set(ids) }),
  toggle: (id: number) =>
    useLine.setState(({ chosen }) => {
      const now = new Set(chosen);
      if (!now.delete(id)) now.add(id);
      return { chosen: now };
    }),
  see: (span: Span) => {
    seen.span = span;
    wake();
  },
};

/** A song on stage as it was told last. */
export const toldOf = (id: number): SongTold | null =>
  useLive.getState().state?.songs?.find((one) => one.timeline === id && !one.leaving) ?? null;

/** Where a song is now, s: as told, and what has passed since; null: it is not on stage. */
export function positionNow(id: number, length: number): number | null {
  const told = toldOf(id);
  const state = useLive.getState().state;
  const now = engineNow();
  if (!told || !state || now === null) return null;
  let p = told.position + (now - state.t) * told.speed;
  if (told.loop && p >= told.loop[1] && told.position < told.loop[1])
    p = told.loop[0] + ((p - told.loop[0]) % Math.max(told.loop[1] - told.loop[0], 0.1));
  return Math.min(Math.max(p, 0), length);
}

/** Play from where it is, or stand. */
export function playOrStand(id: number) {
  const told = toldOf(id);
  act({ do: "play-song", timeline: id, on: !told || told.speed === 0 });
}
