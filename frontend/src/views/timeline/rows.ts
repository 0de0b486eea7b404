import type { Marker, Timeline, TimelineEvent, Track } from "../../api/timelines";

/** Heights of what lies above the tracks, and of tracks, px. */
export const RULER_PX = 22;
export const MARKERS_PX = 24;
export const SOUND_PX = 64;
export const HEADING_PX = 24;
export const TRACK_PX = 46;
export const TOP_PX = RULER_PX + MARKERS_PX + SOUND_PX;
export const GROUPS = ["light", "video", "sound", "effects"] as const;
export const GROUP_TITLES: Record<(typeof GROUPS)[number], string> = {
  light: "Light",
  video: "Video",
  sound: "Sound",
  effects: "Effects of others",
};
export const KIND_TITLES = { cues: "cues", presses: "presses", levels: "level", messages: "messages" };

/** A track or the heading of a group, and where it lies. */
export interface Row {
  top: number;
  height: number;
  heading: string | null;
  track: Track | null;
}

/** Tracks below each other, by their groups. */
export function rowsOf(song: Timeline): Row[] {
  const rows: Row[] = [];
  let top = 0;
  for (const group of GROUPS) {
    const tracks = song.tracks.filter((one) => (one.document.group ?? "light") === group);
    if (!tracks.length) continue;
    rows.push({ top, height: HEADING_PX, heading: GROUP_TITLES[group], track: null });
    top += HEADING_PX;
    for (const track of tracks) {
      rows.push({ top, height: TRACK_PX, heading: null, track });
      top += TRACK_PX;
    }
  }
  return rows;
}

export const heightOf = (rows: Row[]) => {
  const last = rows.at(-1);
  return last ? last.top + last.height : 0;
};

/** Events by track, each in order. */
export function byTrack(events: TimelineEvent[]): Map<number, TimelineEvent[]> {
  const found = new Map<number, TimelineEvent[]>();
  for (const one of events) {
    const own = found.get(one.track_id);
    if (own) own.push(one);
    else found.set(one.track_id, [one]);
  }
  return found;
}

export const valueOf = (event: TimelineEvent) => Number((event.document as { value?: number }).value ?? 0);

/** The part of the song at a position. */
export const markerAt = (markers: Marker[], p: number) =>
  markers.findLast((one) => one.at <= p + 1e-6 && (one.length ?? 0) > 0 && p < one.at + (one.length ?? 0)) ??
  null;
