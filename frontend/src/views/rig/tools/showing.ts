import { act } from "../../../live/socket";

/** What this page shows, step by step; empty: nothing. */
let ours: string[][] = [];

/** Show heads on stage, step by step; no steps: no more. */
export function show(steps: string[][], at = 0, tempo: string | null = null) {
  ours = steps;
  act({ do: "highlight", steps, at, tempo, holder: "" });
}

/** The steps that this page shows. */
export const shownSteps = () => ours;

/** End what this page shows; what another page shows goes on. */
export function endShowing() {
  if (ours.length) show([]);
}
