import type { LiveState } from "../../live/socket";

/** What of the live state tells how the output does. */
export type OutputFacts = Pick<LiveState, "routes" | "health" | "held">;

export interface OutputWords {
  /** Two words or three. */
  text: string;
  wrong: boolean;
  /** The part of the Output view that says more. */
  tab: "routes" | "health" | "slots";
}
const OTHERS = "Other source";
/** So many late frames in the last minute, of about 2,600, are worth a word. */
const MANY_LATE = 26;

/** How the output does, the worst first. */
export function outputWords({ routes, health, held }: OutputFacts): OutputWords {
  const on = routes.filter((route) => route.state !== "off");
  const late = health.minute.reduce((sum, second) => sum + second.late, 0);
  if (held?.length) return { text: "Slot held", wrong: true, tab: "slots" };
  if (on.some((route) => route.state === "failed"))
    return { text: "Route failed", wrong: true, tab: "routes" };
  if (on.some((route) => route.state === "not allowed"))
    return { text: "Route waits", wrong: true, tab: "routes" };
  if (health.troubles.some((trouble) => trouble.who === OTHERS))
    return { text: OTHERS, wrong: true, tab: "routes" };
  if (!on.length) return { text: "No output", wrong: true, tab: "routes" };
  if (late >= MANY_LATE) return { text: "Frames late", wrong: true, tab: "health" };
  return { text: "Sending", wrong: false, tab: "health" };
}

/** How a device does, in one line. */
export function deviceWords(state: NonNullable<LiveState["devices"]>[number]): string {
  const parts = [`${(state.sent ?? 0).toLocaleString("en")} sent`];
  if (state.failed) parts.push(`${state.failed.toLocaleString("en")} did not arrive`);
  if (state.last) parts.push(`last: ${state.last}`);
  return parts.join(" · ");
}

/** How a route does, in one line. */
export function routeWords(state: LiveState["routes"][number]): string {
  if (state.state === "off") return "off";
  if (state.state !== "sending" && state.state !== "failed") return state.state;
  const count = (n: number, word: string) => `${n.toLocaleString("en")} ${word}${n === 1 ? "" : "s"}`;
  const since = state.since_last_s ?? null;
  const parts = [
    count(state.universes ?? 0, "universe"),
    `${Math.round(state.per_second ?? 0).toLocaleString("en")} packets/s`,
    since === null ? "nothing sent yet" : `last ${ago(since)}`,
  ];
  if (state.longest_gap_s) parts.push(`longest gap ${state.longest_gap_s.toFixed(2)} s`);
  if (state.errors) parts.push(count(state.errors, "error"));
  if (state.drops) parts.push(`${state.drops.toLocaleString("en")} dropped`);
  return parts.join(" · ");
}

/** How long ago something was. */
export function ago(seconds: number): string {
  if (seconds < 1) return "just now";
  if (seconds < 90) return `${Math.round(seconds)} s ago`;
  return `${Math.round(seconds / 60)} min ago`;
}
