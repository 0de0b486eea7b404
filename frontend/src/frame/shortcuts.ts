import { useEffect } from "react";

import { act, useLive } from "../live/socket";
import { desk, useDesk, VIEWS, type View } from "../state";

export interface Shortcut {
  keys: string;
  does: string;
}
/** Shown by `?`. */
export const SHORTCUTS: Shortcut[] = [
  { keys: `Alt+1 … Alt+${VIEWS.length}`, does: "Switch views" },
  { keys: "Space", does: "Go: the next cue of the chosen list (in Cues and Busk)" },
  { keys: "1 … 9, 0", does: "Choose a row (in Busk)" },
  { keys: "Space", does: "Play the song, or let it stand (in Timeline)" },
  { keys: "← →, Shift+← →", does: "Move chosen events, or the playhead, by a frame or a beat (in Timeline)" },
  { keys: "PageUp, PageDown; , .", does: "Go to the part or event before or after (in Timeline)" },
  {
    keys: "Ctrl+C, X, V, D; Delete; Q",
    does: "Copy, cut, paste, copy to the next part; delete; on the beat (in Timeline)",
  },
  { keys: "L, M; +, −, 0", does: "Loop a part, mark; zoom in, out, all of the song (in Timeline)" },
  { keys: "Home", does: "From the rows to the faders, and back (in Busk)" },
  { keys: "1 … 9", does: "Show a page of faders and buttons (in Busk, where they are shown)" },
  { keys: "Shift+1 … Shift+9", does: "Run an action list that has this key" },
  { keys: "Letters", does: "Press a pad of the chosen row (in Busk; Alt shows them)" },
  { keys: "PageUp, PageDown", does: "Turn the pages of pads (in Busk)" },
  { keys: "/", does: "Quick selection" },
  { keys: "T", does: "Tap the first tempo" },
  { keys: "F", does: "Fill the screen with the stage" },
  { keys: "B", does: "Prepare the draft blind" },
  { keys: "W", does: "Ask why: then point at a light on the stage" },
  { keys: "Esc", does: "Close the innermost open thing, then clear the selection" },
  { keys: "Shift+Esc", does: "Clear the draft (undo brings it back)" },
  { keys: "Ctrl+Z, Ctrl+Shift+Z", does: "Undo, redo" },
  { keys: "?", does: "These shortcuts" },
];

const TYPES_TEXT = "input:not([type=range]), textarea, [contenteditable]";

/** Whether the focus is on a control that uses this key itself. */
export function usesKey(target: Element | null, key: string): boolean {
  if (!target) return false;
  if (target.matches(TYPES_TEXT)) return true;
  if (target.closest("[role=listbox]:not([data-stays]), [role=menu]")) return key.length === 1;
  return key === " " && target.matches("button, [role=button], [role=tab]");
}

const GO_IN: readonly View[] = ["cues", "busk"];
/** Where a press by pointer leaves no focus behind, so that keys act there. */
const LEAVES_NO_FOCUS: readonly View[] = [...GO_IN, "timeline"];
/** What is open over the view; a list that is a part of it says so. */
const OPEN = "[role=dialog], [role=menu], [role=listbox]:not([data-stays])";

/** Whether a key is free for the page: nobody took it, nothing is open, and the focus does not use it itself. */
export function isFree(event: KeyboardEvent): boolean {
  return (
    !event.defaultPrevented && !document.querySelector(OPEN) && !usesKey(document.activeElement, event.key)
  );
}

const HOLDS_FOCUS = `${TYPES_TEXT}, ${OPEN}`;

/** Whether Space is go. */
export function spaceIsGo(view: View, focused: Element | null): boolean {
  return GO_IN.includes(view) && spaceIsFree(focused);
}

/** Whether Space acts on the view: not where text is typed, something is open, or the keyboard has put a visible focus. */
export function spaceIsFree(focused: Element | null): boolean {
  if (document.querySelector(OPEN)) return false;
  if (!focused || focused === document.body) return true;
  return !focused.matches(TYPES_TEXT) && !focused.matches(":focus-visible");
}

/** Space goes, and a press by pointer or finger leaves no focus behind, so that Space after it is go. */
export function useGoKey(go: () => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.key !== " " || event.ctrlKey || event.metaKey || event.altKey)
        return;
      const focused = document.activeElement;
      if (!spaceIsGo(useDesk.getState().view, focused)) return;
      event.preventDefault();
      event.stopPropagation();
      if (focused instanceof HTMLElement) focused.blur();
      if (!event.repeat) go();
    };
    const onPress = () => {
      if (!LEAVES_NO_FOCUS.includes(useDesk.getState().view)) return;
      window.setTimeout(() => {
        const focused = document.activeElement;
        if (focused instanceof HTMLElement && !focused.closest(HOLDS_FOCUS)) focused.blur();
      });
    };
    window.addEventListener("keydown", onKey, true);
    window.addEventListener("pointerup", onPress, true);
    return () => {
      window.removeEventListener("keydown", onKey, true);
      window.removeEventListener("pointerup", onPress, true);
    };
  }, [go]);
}

interface Commands {
  undo: () => void;
  redo: () => void;
  clearDraft: () => void;
  help: () => void;
}

/** What a key does when no control with the focus uses it. */
function command(event: KeyboardEvent, commands: Commands): (() => void) | null {
  const ctrl = event.ctrlKey || event.metaKey;
  if (event.altKey && /^Digit[1-9]$/.test(event.code)) {
    const view = VIEWS[Number(event.code.slice(5)) - 1];
    return view ? () => desk.show(view) : null;
  }
  if (ctrl && event.key.toLowerCase() === "z") return event.shiftKey ? commands.redo : commands.undo;
  if (ctrl && event.key.toLowerCase() === "y") return commands.redo;
  if (ctrl || event.altKey) return null;
  if (event.key === "Escape") return event.shiftKey ? commands.clearDraft : close;
  const plain: Record<string, () => void> = {
    "/": () => document.getElementById("quick-selection")?.focus(),
    "?": commands.help,
    t: () => {
      const tempo = useLive.getState().state?.tempos[0];
      if (tempo) act({ do: "tap", tempo: tempo.name });
    },
    f: () => desk.size("full"),
    b: () => act({ do: "blind" }),
    w: () => useDesk.setState(({ asking }) => ({ asking: !asking, standing: null })),
  };
  return plain[event.key.length === 1 ? event.key.toLowerCase() : event.key] ?? null;
}

function close() {
  const { stages, view, asking, why, standing } = useDesk.getState();
  if (asking || why || standing !== null) useDesk.setState({ asking: false, why: null, standing: null });
  else if (stages[view] === "full") desk.size("full");
  else desk.select([]);
}

/** Listen to the keyboard. What is open (a dialog, a menu) takes its keys first. */
export function useShortcuts(commands: Commands) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || usesKey(document.activeElement, event.key)) return;
      if (document.querySelector("[role=dialog], [data-trigger]") && !event.ctrlKey) return;
      const does = command(event, commands);
      if (does) {
        event.preventDefault();
        does();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [commands]);
}
