import type { Driven, Kind, Mode } from "../../../api/pages";

/** What a fader can do, as it is chosen. */
export const FADER_JOBS: { id: Kind; text: string }[] = [
  { id: "list", text: "Level of a cue list" },
  { id: "group", text: "Level of a group" },
  { id: "effect", text: "An effect: its depth, its speed, or both" },
  { id: "look", text: "A look or an overlay, mixed in" },
  { id: "pixels", text: "A pixel map: its share" },
  { id: "tempo", text: "A tempo" },
  { id: "special", text: "Level of all specials" },
  { id: "master", text: "Grand master" },
  { id: "row", text: "Level of the effects of a row" },
  { id: "message", text: "Value of a message" },
];

/** What a button can do, as it is chosen. */
export const BUTTON_JOBS: { id: Kind; text: string }[] = [
  { id: "list", text: "A cue list: next cue, back, pause, release" },
  { id: "effect", text: "An effect" },
  { id: "look", text: "A look or an overlay" },
  { id: "pixels", text: "A pixel map" },
  { id: "special", text: "A special, or all of them home" },
  { id: "alone", text: "Some lights alone while it is held" },
  { id: "tempo", text: "Tap a tempo" },
  { id: "stop-effects", text: "Stop effects" },
  { id: "release", text: "Release everything that is not protected" },
  { id: "message", text: "Send a message" },
  { id: "actions", text: "Run an action list" },
  { id: "page", text: "Show another page" },
  { id: "master", text: "Blackout" },
];

export const MODES: { id: Mode; text: string }[] = [
  { id: "latch", text: "on and off by presses" },
  { id: "flash", text: "on while it is held" },
];

/** Kinds of which a button is on, or held. */
export const TURNS: readonly Kind[] = ["effect", "look", "pixels", "special", "master", "actions"];

/** A control of a kind that nothing is chosen for yet. */
export const fresh = (kind: Kind, fader: boolean): Driven => ({
  kind,
  heads: [],
  do: fader ? "level" : "go",
  seconds: 2,
  picture: 0,
});
