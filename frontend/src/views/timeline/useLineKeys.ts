import { useEffect } from "react";

import { useTimelineEdits, type Timeline } from "../../api/timelines";
import { isFree, spaceIsFree } from "../../frame/shortcuts";
import { act } from "../../live/socket";
import { frameS } from "../../live/timecode";
import { useDesk } from "../../state";
import { line, playOrStand, positionNow, seen, toldOf, useLine } from "./line";
import { beatS } from "./line/newEvent";
import { markerAt } from "./rows";
import { snapped, zoomed } from "./scale";

/** Keys over a song: play, move what is chosen, cut and paste, jump. */
export function useLineKeys(song: Timeline | undefined) {
  const edits = useTimelineEdits(song?.id ?? 0);
  useEffect(() => {
    if (!song) return;
    const length = song.document.length_s ?? 0;
    const frame = frameS(song.document.rate ?? "25");
    const here = () => positionNow(song.id, length) ?? 0;
    const go = (position: number) => act({ do: "locate", timeline: song.id, position });
    const ids = () => [...useLine.getState().chosen];
    const free = () => {
      const locked = new Set(song.tracks.filter((one) => one.document.locked).map((one) => one.id));
      const chosen = useLine.getState().chosen;
      return song.events.filter((one) => chosen.has(one.id) && !locked.has(one.track_id));
    };
    const nudge = (seconds: number) => {
      const chosen = free().map((one) => one.id);
      if (chosen.length) void edits.nudge(chosen, seconds);
      else go(Math.min(Math.max(here() + seconds, 0), length));
    };
    const jump = (way: 1 | -1, places: number[]) => {
      const p = here();
      const found = way > 0 ? places.find((one) => one > p + 0.01) : places.findLast((one) => one < p - 0.3);
      if (found !== undefined) go(found);
    };
    const remove = () => {
      const chosen = free().map((one) => one.id);
      if (chosen.length) void edits.removeEvents(chosen);
      line.choose([]);
    };
    const paste = () => {
      const { copied, cut, snap } = useLine.getState();
      if (!copied.length) return;
      void edits.copy(copied, snapped(here(), snap, song), cut).then((made) => {
        if (!made) return;
        line.choose(made.map((one) => one.id));
        if (cut.length) useLine.setState({ cut: [], copied: made.map((one) => one.id) });
      });
    };
    const loop = () => {
      const told = toldOf(song.id)?.loop;
      const part = markerAt(song.markers, here());
      if (told) act({ do: "loop-song", timeline: song.id, end: null });
      else if (part)
        act({ do: "loop-song", timeline: song.id, begin: part.at, end: part.at + (part.length ?? 0) });
    };
    const marks = song.markers.map((one) => one.at);
    const places = song.events.map((one) => one.at);
    const plain: Record<string, () => void> = {
      " ": () => playOrStand(song.id),
      ArrowRight: () => nudge(frame),
      ArrowLeft: () => nudge(-frame),
      "Shift+ArrowRight": () => nudge(beatS(song, here())),
      "Shift+ArrowLeft": () => nudge(-beatS(song, here())),
      Home: () => go(0),
      PageDown: () => jump(1, marks),
      PageUp: () => jump(-1, marks),
      ".": () => jump(1, places),
      ",": () => jump(-1, places),
      Delete: remove,
      Backspace: remove,
      l: loop,
      m: () => {
        const at = snapped(here(), useLine.getState().snap, song);
        void edits.addMarker({ at, length: 0, name: `mark ${song.markers.length + 1}`, colour: "" });
      },
      q: () => {
        const chosen = free().map((one) => one.id);
        if (chosen.length) void edits.quantise({ events: chosen, unit: "beat", strength: 1 });
      },
      "+": () => line.see(zoomed(seen.span, 0.6, here(), length, song.document.rate ?? "25")),
      "-": () => line.see(zoomed(seen.span, 1 / 0.6, here(), length, song.document.rate ?? "25")),
      "0": () => line.see({ from: 0, to: length }),
    };
    const ctrl: Record<string, () => void> = {
      a: () => line.choose(song.events.map((one) => one.id)),
      c: () => useLine.setState({ copied: ids(), cut: [] }),
      x: () => {
        useLine.setState({ cut: free().map((one) => one.id), copied: free().map((one) => one.id) });
      },
      v: paste,
      d: () => {
        if (ids().length)
          void edits.copy(ids(), null).then((made) => made && line.choose(made.map((one) => one.id)));
      },
    };
    const onKey = (event: KeyboardEvent) => {
      if (useDesk.getState().view !== "timeline") return;
      const focused = document.activeElement;
      if (event.key === " " ? event.defaultPrevented || !spaceIsFree(focused) : !isFree(event)) return;
      if (event.key === " " && focused instanceof HTMLElement) focused.blur();
      const held = event.ctrlKey || event.metaKey;
      if (event.altKey) return;
      const name = `${event.shiftKey && event.key.length > 1 ? "Shift+" : ""}${event.key.length === 1 ? event.key.toLowerCase() : event.key}`;
      const does = held ? ctrl[name] : plain[name];
      if (!does) return;
      event.preventDefault();
      event.stopPropagation();
      if (!event.repeat || name.includes("Arrow")) does();
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [song, edits]);
}
