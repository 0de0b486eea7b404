import type { LookSource } from "../../../api/looks";

export type Source = NonNullable<LookSource["source"]>;

export const KINDS = [
  { id: "look", text: "a look, on a button or fader" },
  { id: "overlay", text: "an overlay, mixed in over what runs" },
];
export const SOURCES: { id: Source; text: string }[] = [
  { id: "draft", text: "what is set by hand" },
  { id: "stage", text: "what is on stage now" },
];
/** What is kept of a look, in words. */
export const KEPT: { id: string; text: string; families: LookSource["families"] }[] = [
  { id: "all", text: "everything", families: null },
  { id: "position", text: "only movement", families: ["position"] },
  { id: "colour", text: "only colour", families: ["colour"] },
  { id: "intensity", text: "only light", families: ["intensity"] },
  { id: "beam", text: "only beam", families: ["beam"] },
  { id: "not-light", text: "everything but light", families: ["position", "colour", "beam"] },
  { id: "colour-light", text: "colour and light", families: ["intensity", "colour"] },
];
