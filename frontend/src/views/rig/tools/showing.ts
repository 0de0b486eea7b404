import { act } from "../../../live/socket";

let ours = false;

/** Show heads on stage, step by step; no steps: no more. */
export function show(steps: string[][], at = 0, tempo: string | null = null) {
  ours = steps.length > 0;
  act({ do: "highlight", steps, at, tempo, holder: "" });
}

/** End what this page shows; what another page shows goes on. */
export function endShowing() {
  if (ours) show([]);
}
