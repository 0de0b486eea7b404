import type { Schemas } from "../../../api/client";
import { useTimelineEdits, type Timeline, type TimelineEvent, type Track } from "../../../api/timelines";
import { say } from "../../../ui/Toasts";
import { line, useLine } from "../line";
import { valueOf } from "../rows";

export type NewEvent = Schemas["NewEventBody"];

/** Level of a track of points at a position: straight between them. */
export function levelAt(events: TimelineEvent[], p: number): number {
  const after = events.findIndex((one) => one.at > p);
  const [before, next] = after < 0 ? [events.at(-1), undefined] : [events[after - 1], events[after]];
  if (!before) return next ? valueOf(next) : 0;
  if (!next) return valueOf(before);
  const share = (p - before.at) / (next.at - before.at);
  return valueOf(before) + share * (valueOf(next) - valueOf(before));
}

/** How long a beat is at a position, s. */
export function beatS(song: Timeline, p: number): number {
  const next = song.bars.findIndex((one) => one > p);
  const bar = next > 0 ? song.bars[next]! - song.bars[next - 1]! : 2;
  return bar / (song.document.grid?.in_bar ?? 4);
}

/** A new event of a track at a position: the cue after the one before, a press of a beat, a point on the line.
 * Null: nothing can be told without asking. */
export function newEvent(song: Timeline, track: Track, at: number, level?: number): NewEvent | null {
  const own = song.events.filter((one) => one.track_id === track.id);
  const plain = { track_id: track.id, at, length: 0 };
  switch (track.document.kind) {
    case "cues": {
      const cues = song.cues.filter((one) => `list:${one.list_id}` === track.document.drives);
      const before = own.findLast((one) => one.at <= at)?.document as { cue?: number } | undefined;
      const cue = cues[cues.findIndex((one) => one.id === before?.cue) + 1] ?? cues.at(-1);
      return cue ? { ...plain, document: { cue: cue.id } } : null;
    }
    case "presses":
      return { ...plain, length: beatS(song, at), document: { does: "hold" } };
    case "levels":
      return { ...plain, document: { value: Math.round((level ?? levelAt(own, at)) * 200) / 200 } };
    case "messages":
      return null;
  }
}

/** Put a new event on a track. Messages are asked for first; what cannot be is told. */
export function useNewEvent(song: Timeline) {
  const edits = useTimelineEdits(song.id);
  return (track: Track, at: number, level?: number) => {
    const { kind, locked, name } = track.document;
    if (locked) return say(`${name} is locked. Unlock it in its menu.`);
    if (kind === "messages") return useLine.setState({ adding: { track: track.id, at } });
    const made = newEvent(song, track, at, level);
    if (!made) return say(`There are no cues yet in what ${name} drives.`);
    void edits
      .addEvents({ events: [made] })
      .then((events) => events && line.choose(events.map((one) => one.id)));
  };
}
