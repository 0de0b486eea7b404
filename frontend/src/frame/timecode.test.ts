// @vitest-environment jsdom
import { describe, expect, it } from "vitest";

import type { LiveState } from "../live/socket";
import { labelAfter } from "../live/timecode";
import { timecodeShown } from "./TimecodeTool";

const song = { label: "02:00:10:05", rate: "25", speed: 1, chases: false, leaving: false };
const told = (timecode: object | null, songs: object[]) => ({ timecode, songs }) as unknown as LiveState;
const incoming = (state: string) => ({ state, label: "01:00:00:00", rate: "30", since: 1.2, text: "" });

describe("timecode in the top bar", () => {
  it.each([
    ["incoming, before the song's own", told(incoming("chasing"), [song]), "01:00:00:00", "chasing", true],
    ["free running, counted", told(incoming("free"), []), "01:00:00:00", "free running", true],
    ["lost: it stands", told(incoming("lost"), [song]), "01:00:00:00", "standing", false],
    ["of a song on its own clock", told(incoming("none"), [song]), "02:00:10:05", "own clock", true],
    [
      "of a song at half speed, as it is told",
      told(null, [{ ...song, speed: 0.5 }]),
      "02:00:10:05",
      "own clock",
      false,
    ],
    ["of a song that stands", told(null, [{ ...song, speed: 0 }]), "02:00:10:05", "own clock, stands", false],
    [
      "of a song that waits for it",
      told(null, [{ ...song, chases: true }]),
      "02:00:10:05",
      "no timecode",
      true,
    ],
  ])("is %s", (_, state, label, words, moves) => {
    expect(timecodeShown(state)).toMatchObject({ label, words, moves });
  });
  it("is nothing where there is neither", () => {
    expect(timecodeShown(told(incoming("none"), [{ ...song, leaving: true }]))).toBeNull();
    expect(timecodeShown(null)).toBeNull();
  });
  it.each([
    ["01:00:59:24", "25", 1, "01:01:00:00"],
    ["23:59:59:23", "24", 1, "00:00:00:00"],
    ["00:00:01;00", "29.97 drop", 31, "00:00:02;01"],
    ["00:00:59;29", "29.97 drop", 1, "00:01:00;02"],
    ["00:08:59;28", "29.97 drop", 1800, "00:10:00;00"],
    ["00:08:59;28", "29.97 drop", 2, "00:09:00;02"],
    ["23:59:59;29", "29.97 drop", 1, "00:00:00;00"],
    ["00:00:59:29", "29.97", 1, "00:01:00:00"],
    ["", "25", 3, ""],
  ])("counts %s at %s on by %i", (label, rate, frames, after) => {
    expect(labelAfter(label, rate, frames)).toBe(after);
  });
});
