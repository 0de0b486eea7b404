import styled from "styled-components";

import { engineNow, useEveryFrame } from "../live/clock";
import { useLive, useLivePart, type LiveState } from "../live/socket";
import { frameS, labelAfter } from "../live/timecode";
import { desk } from "../state";

const Told = styled.button`
  all: unset;
  cursor: pointer;
  display: grid;
  font: 14px/1.15 var(--numbers);
  white-space: pre;
  text-align: right;
  &:focus-visible {
    outline: 2px solid var(--focus);
  }
  > span {
    display: grid;
  }
  small {
    font: 13px/1.15 var(--words);
    color: var(--quiet);
  }
`;
const STATES: Record<string, string> = {
  locking: "locking",
  chasing: "chasing",
  free: "free running",
  standing: "standing",
  lost: "standing",
};

interface Shown {
  label: string;
  rate: string;
  /** Frames go on from what was told. */
  moves: boolean;
  /** How it is, in words; since: of that, s, where it counts. */
  words: string;
  since: number | null;
  text: string;
}

/** Incoming timecode, or without it the label of the song on stage; null: there is neither. */
export function timecodeShown(state: LiveState | null): Shown | null {
  const told = state?.timecode;
  if (told && told.state !== "none") {
    const { label, rate, text } = told;
    const since = told.state === "free" ? (told.since ?? 0) : null;
    const moves = told.state === "chasing" || told.state === "free";
    return { label, rate, moves, words: STATES[told.state] ?? told.state, since, text: text ?? "" };
  }
  const song = state?.songs?.find((one) => !one.leaving);
  if (!song?.label) return null;
  const words = song.chases ? "no timecode" : song.speed ? "own clock" : "own clock, stands";
  // at another speed than its own, labels come as they are told
  return {
    label: song.label,
    rate: song.rate ?? "25",
    moves: song.speed === 1,
    words,
    since: null,
    text: "",
  };
}

/** The label of timecode and how it is; what is wrong with it is on the title, and in Output. */
export function TimecodeTool() {
  const shown = useLivePart((state) => {
    const found = timecodeShown(state);
    return found && { text: found.text, incoming: state?.timecode?.state !== "none" };
  });
  const label = useEveryFrame<HTMLSpanElement>((element, now) => {
    const state = useLive.getState().state;
    const told = timecodeShown(state);
    if (!state || !told) return;
    const frames = told.moves ? Math.max(0, Math.floor((now - state.t) / frameS(told.rate))) : 0;
    const words = `${told.words}${told.since === null ? "" : ` ${(told.since + now - state.t).toFixed(1)} s`}`;
    const [label_, state_] = element.children;
    const label = labelAfter(told.label, told.rate, frames);
    if (label_!.textContent !== label) label_!.textContent = label;
    if (state_!.textContent !== words) state_!.textContent = words;
  });
  if (!shown || engineNow() === null) return null;
  return (
    <Told
      title={shown.text || (shown.incoming ? "Incoming timecode" : "Timecode of the song")}
      aria-label={shown.incoming ? "Incoming timecode" : "Timecode of the song"}
      onClick={() => desk.showOutput("timecode")}
    >
      <span ref={label}>
        <span className="label" />
        <small />
      </span>
      {shown.text && <small>look in Output</small>}
    </Told>
  );
}
