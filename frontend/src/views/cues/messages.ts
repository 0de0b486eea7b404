import type { Schemas } from "../../api/client";

export type Message = Schemas["MessageView"]["message"];
export type Kind = Message["kind"];

/** What a cue can send, as it is chosen. */
export const KINDS: { id: Kind; text: string }[] = [
  { id: "osc", text: "OSC" },
  { id: "note", text: "MIDI note" },
  { id: "controller", text: "MIDI controller" },
  { id: "program", text: "MIDI program" },
  { id: "show control", text: "MIDI Show Control" },
  { id: "list", text: "to another cue list" },
  { id: "control", text: "to a fader or button" },
  { id: "stop effects", text: "stop effects" },
  { id: "release everything", text: "release everything" },
];

/** What a device must speak to get a message of a kind; null: it goes to no device. */
export function speaks(kind: Kind): "OSC" | "MIDI" | null {
  if (kind === "osc") return "OSC";
  return ["list", "control", "stop effects", "release everything"].includes(kind) ? null : "MIDI";
}

/** What a message can go to, by number. */
export interface Targets {
  devices: { id: number; speaks: "OSC" | "MIDI" }[];
  lists: { id: number }[];
  controls: { id: number }[];
}

/** A new message of a kind, to the first of what it can go to; null where there is nothing. */
export function fresh(kind: Kind, targets: Targets, wait = 0): Message | null {
  const device = targets.devices.find((one) => one.speaks === speaks(kind))?.id;
  const list = targets.lists[0]?.id;
  const control = targets.controls[0]?.id;
  if (speaks(kind) !== null && device === undefined) return null;
  const to = { wait, device: device! };
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
