import { create } from "zustand";

import type { Action } from "./socket";

interface Recording {
  /** When it began, in ms; null: nothing is recorded. */
  since: number | null;
  hands: { at: number; action: Action }[];
}

/** What the hands of this page do, while an action list is recorded from it. */
export const useRecording = create<Recording>(() => ({ since: null, hands: [] }));

export const recording = {
  begin: () => useRecording.setState({ since: performance.now(), hands: [] }),
  /** Ends it; what was done stays until the next one begins. */
  end: () => useRecording.setState({ since: null }),
  note(action: Action) {
    const { since, hands } = useRecording.getState();
    if (since === null) return;
    const at = hands.length ? (performance.now() - since) / 1000 : 0;
    // the first thing done is where the list begins
    useRecording.setState({
      since: hands.length ? since : performance.now(),
      hands: [...hands, { at, action }],
    });
  },
};
