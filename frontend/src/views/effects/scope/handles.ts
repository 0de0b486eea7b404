import type { Change } from "../editor/useEditor";

/** Handles in the scope: what each changes, where it stands, how far it goes. Pure. */

export interface Handle {
  id: string;
  label: string;
  /** Which way it is dragged. */
  axis: "x" | "y";
  /** Where it stands: shares of the picture, from the left and from the top. */
  x: number;
  y: number;
  value: number;
  low: number;
  high: number;
  step: number;
  text: string;
  /** The value at a share of the picture along its axis. */
  at: (share: number) => number;
  change: (value: number) => Change;
}
export interface StopTimes {
  travel: number;
  hold: number;
}
interface LayerDocument {
  form: {
    kind: string;
    shape?: string;
    duty?: number;
    softness?: number;
    stops?: StopTimes[];
  };
  anchor?: { kind: string };
  start?: number;
}

const clamp = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high);
const neat = (value: number, digits = 3) => Number(value.toFixed(digits));
const percent = (share: number) => `${Math.round(share * 100)} %`;
const RELATIONS = ["below", "centred", "above"] as const;

function slide(
  rest: Pick<Handle, "id" | "label" | "x" | "y" | "value" | "low" | "high" | "text"> & {
    of: (share: number) => number;
    to: (value: number) => Change;
    step?: number;
  },
): Handle {
  const { of, to, step = 0.01, ...more } = rest;
  return {
    ...more,
    axis: "x",
    step,
    at: (share) => clamp(neat(of(share)), more.low, more.high),
    change: to,
  };
}

/** Handles of a waveform: duty, softness, start, and its relation to the base. */
function waveHandles(
  number: number,
  layer: LayerDocument,
  relay: boolean,
  middle: number,
  duty: number,
): Handle[] {
  const path = `layers.${number}`;
  const { form } = layer;
  const set = (place: string, value: unknown): Change => ({
    operation: "set",
    path: `${path}.${place}`,
    value,
  });
  const found = [
    slide({
      id: "duty",
      label: "Duty",
      x: duty,
      y: 0.94,
      value: duty,
      low: 0.01,
      high: 1,
      text: `on for ${percent(duty)}`,
      of: (share) => share,
      to: (value) => set("form.duty", value),
    }),
  ];
  if (form.shape === "square" || form.shape === "steps") {
    const softness = form.softness ?? 0;
    const reach = form.shape === "square" ? duty / 2 : 1;
    found.push(
      slide({
        id: "softness",
        label: "Softness",
        x: softness * reach,
        y: 0.06,
        value: softness,
        low: 0,
        high: 1,
        text: `${percent(softness)} softness`,
        of: (share) => share / reach,
        to: (value) => set("form.softness", value),
      }),
    );
  }
  if (!relay) {
    const start = layer.start ?? 0;
    found.push(
      slide({
        id: "start",
        label: "Start",
        x: (((start / 360) % 1) + 1) % 1 || 0,
        y: 0.5,
        value: start,
        low: -360,
        high: 360,
        step: 5,
        text: `starts at ${Math.round(start)}°`,
        of: (share) => Math.round(share * 72) * 5,
        to: (value) => set("start", value),
      }),
    );
  }
  const relation = RELATIONS.indexOf((layer.anchor?.kind ?? "") as (typeof RELATIONS)[number]);
  if (relation >= 0)
    found.push({
      id: "relation",
      label: "Relation to the base",
      axis: "y",
      x: 0.985,
      y: middle,
      value: relation,
      low: 0,
      high: 2,
      step: 1,
      text: RELATIONS[relation]!,
      at: (share) => (share < 0.34 ? 2 : share < 0.67 ? 1 : 0),
      change: (value) => set("anchor.kind", RELATIONS[value]!),
    });
  return found;
}

/** Stops with one boundary moved: between travel and hold of a stop, or between its hold and the next one's travel. */
export function movedBoundary(
  stops: readonly StopTimes[],
  n: number,
  which: "arrive" | "leave",
  share: number,
): StopTimes[] {
  const total = stops.reduce((sum, stop) => sum + stop.travel + stop.hold, 0);
  const begin = stops.slice(0, n).reduce((sum, stop) => sum + stop.travel + stop.hold, 0);
  const own = stops[n]!;
  const at = share * total;
  if (which === "arrive") {
    const travel = neat(clamp(at - begin, 0, own.travel + own.hold));
    return stops.map((stop, m) =>
      m === n ? { ...stop, travel, hold: neat(own.travel + own.hold - travel) } : stop,
    );
  }
  const next = stops[n + 1]!;
  const room = own.hold + next.travel;
  const hold = neat(clamp(at - begin - own.travel, 0, room));
  return stops.map((stop, m) =>
    m === n ? { ...stop, hold } : m === n + 1 ? { ...stop, travel: neat(room - hold) } : stop,
  );
}

/** Handles of stops: where each is reached, and where it is left. */
function stopHandles(number: number, stops: StopTimes[]): Handle[] {
  const total = stops.reduce((sum, stop) => sum + stop.travel + stop.hold, 0);
  const found: Handle[] = [];
  let begin = 0;
  stops.forEach((stop, n) => {
    for (const which of ["arrive", "leave"] as const) {
      if (which === "leave" && n === stops.length - 1) continue;
      const x = (begin + stop.travel + (which === "leave" ? stop.hold : 0)) / total;
      const words = which === "arrive" ? `Reach stop ${n + 1}` : `Leave stop ${n + 1}`;
      found.push(
        slide({
          id: `${which}-${n}`,
          label: words,
          x,
          y: which === "arrive" ? 0.06 : 0.94,
          value: neat(x),
          low: 0,
          high: 1,
          text: `${words.toLowerCase()} at ${percent(x)} of the cycle`,
          of: (share) => share,
          to: (share) => ({
            operation: "set",
            path: `layers.${number}.form.stops`,
            value: movedBoundary(stops, n, which, share),
          }),
        }),
      );
    }
    begin += stop.travel + stop.hold;
  });
  return found;
}

/** The handles of a layer. middle: where the middle of its wave is, from the top of the picture, 0…1; duty: of a waveform. */
export function handlesOf(
  number: number,
  layer: LayerDocument,
  relay: boolean,
  middle: number,
  duty: number | null = null,
): Handle[] {
  if (layer.form.kind === "stops") return stopHandles(number, layer.form.stops ?? []);
  return layer.form.kind === "waveform" ? waveHandles(number, layer, relay, middle, duty ?? 1) : [];
}
