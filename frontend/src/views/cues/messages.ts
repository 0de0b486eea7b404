import type { Schemas } from "../../api/client";
import type { Inward, InwardOptions } from "./content/InwardFields";

export type Message = Schemas["MessageView"]["message"];
export type Kind = Message["kind"];

/** What a cue can send, as it is chosen. */
export const KINDS: { id: Kind; text: string }[] = [
  { id: "osc", text: "OSC" },
  { id: "note", text: "MIDI note" },
  { id: "controller", text: "MIDI controller" },
  { id: "program", text: "MIDI program" },
  { id: "show control", text: "MIDI Show Control" },
  { id: "list", text: "to a cue list" },
  { id: "control", text: "to a fader or button" },
  { id: "pad", text: "to a pad" },
  { id: "row", text: "to a row" },
  { id: "tempo", text: "to a tempo" },
  { id: "special", text: "to a special" },
  { id: "overlay", text: "to an overlay" },
  { id: "pixels", text: "to a pixel map" },
  { id: "page", text: "show a page" },
  { id: "master", text: "grand master, blackout" },
  { id: "actions", text: "run an action list" },
  { id: "stop effects", text: "stop effects" },
  { id: "release everything", text: "release everything" },
];

/** What a device must speak to get a message of a kind; null: it goes to no device. */
export function speaks(kind: Kind): "OSC" | "MIDI" | null {
  if (kind === "osc") return "OSC";
  return TO_MIDI.includes(kind) ? "MIDI" : null;
}
const TO_MIDI: readonly Kind[] = ["note", "note off", "controller", "program", "show control"];
const INWARD: readonly Kind[] = [
  "pad",
  "row",
  "tempo",
  "special",
  "overlay",
  "pixels",
  "page",
  "master",
  "actions",
];

/** Whether it acts on the show itself, beside lists and controls. */
export const isInward = (message: Message): message is Inward => INWARD.includes(message.kind);

/** What a message can go to, by number. */
export interface Targets {
  devices: { id: number; speaks: "OSC" | "MIDI" }[];
  lists: { id: number }[];
  controls: { id: number }[];
  options?: InwardOptions;
}

/** A new message of a kind, to the first of what it can go to; null where there is nothing. */
export function fresh(kind: Kind, targets: Targets, wait = 0): Message | null {
  const device = targets.devices.find((one) => one.speaks === speaks(kind))?.id;
  const list = targets.lists[0]?.id;
  const control = targets.controls[0]?.id;
  if (speaks(kind) !== null && device === undefined) return null;
  const to = { wait, device: device! };
  const { options } = targets;
  const first = (what: Exclude<keyof InwardOptions, "pads">) =>
    options?.[what][0] === undefined ? null : Number(options[what][0].id);
  switch (kind) {
    case "osc":
      return { kind, ...to, address: "/clip/play", arguments: "1" };
    case "note":
      return { kind, ...to, channel: 1, note: 60, velocity: 100, length: 0.2 };
    case "note off":
      return { kind, ...to, channel: 1, note: 60 };
    case "controller":
      return { kind, ...to, channel: 1, controller: 1, value: 127 };
    case "program":
      return { kind, ...to, channel: 1, program: 1 };
    case "show control":
      return { kind, ...to, command: "go", format: "all", to: 127, cue: "1", list: "", macro: 0 };
    case "list":
      return list === undefined ? null : { kind, wait, list, do: "go", value: 1, seconds: 2 };
    case "control":
      return control === undefined ? null : { kind, wait, control, do: "press", value: 1 };
    case "pad": {
      const row = options?.rows.find((one) => options.pads[Number(one.id)]?.length);
      if (!row) return null;
      return {
        kind,
        wait,
        row: Number(row.id),
        pad: Number(options!.pads[Number(row.id)]![0]!.id),
        do: "press",
      };
    }
    case "row":
      return first("rows") === null ? null : { kind, wait, row: first("rows")!, do: "level", value: 1 };
    case "tempo":
      return first("tempos") === null ? null : { kind, wait, tempo: first("tempos")!, do: "set", bpm: 120 };
    case "special": {
      const special = first("specials");
      return { kind, wait, special, do: special === null ? "home" : "press", value: 1 };
    }
    case "overlay":
      return first("overlays") === null
        ? null
        : { kind, wait, overlay: first("overlays")!, do: "in", value: 1 };
    case "pixels":
      return first("maps") === null
        ? null
        : { kind, wait, map: first("maps")!, picture: 0, do: "in", value: 1 };
    case "page":
      return first("pages") === null ? null : { kind, wait, page: first("pages")! };
    case "master":
      return { kind, wait, do: "level", value: 1 };
    case "actions":
      return first("actions") === null ? null : { kind, wait, actions: first("actions")!, do: "run" };
    case "stop effects":
      return { kind, wait, family: null, seconds: 0.4 };
    case "release everything":
      return { kind, wait, seconds: 2 };
  }
}

/** Messages with one moved up or down by a place. */
export function moved<T>(messages: T[], at: number, by: 1 | -1): T[] {
  const to = at + by;
  if (to < 0 || to >= messages.length) return messages;
  const found = [...messages];
  [found[at], found[to]] = [found[to]!, found[at]!];
  return found;
}
