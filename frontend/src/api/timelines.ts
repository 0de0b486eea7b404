import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";

import { useLivePart, type LiveState } from "../live/socket";
import { say } from "../ui/Toasts";
import { api, putFile, take, type Schemas } from "./client";
import { edited } from "./hand";
import { ownEdit, queries, refresh, tell } from "./queries";

export type Song = Schemas["SongView"];
export type MidiLook = Schemas["MidiView"];
export type Timeline = Schemas["TimelineView"];
export type TimelineEvent = Schemas["SongEventView"];
export type Track = Schemas["TrackView"];
export type Marker = Schemas["MarkerView"];
export type SongTold = NonNullable<LiveState["songs"]>[number];
export type TrackKind = Schemas["TrackDocument"]["kind"];

const key = (id: number | null) => ["timelines", id];

/** All songs in their running order. */
export const useSongs = () =>
  useQuery({
    queryKey: ["timelines"],
    queryFn: async () => (await take(api.GET("/api/timelines"))).songs,
  });

/** A song, whole. */
export const useTimeline = (id: number | null) =>
  useQuery({
    queryKey: key(id),
    enabled: id !== null,
    queryFn: async () =>
      (await take(
        api.GET("/api/timelines/{timeline_id}", { params: { path: { timeline_id: id! } } }),
      )) as Timeline,
    placeholderData: (before) => (before?.id === id ? before : undefined),
    structuralSharing: false,
  });

/** What tracks of a kind can drive. */
export const useDrivable = (kind: TrackKind) =>
  useQuery({
    queryKey: ["timelines", "drivable", kind],
    queryFn: async () =>
      (await take(api.GET("/api/timelines/drivable", { params: { query: { kind } } }))).drivables,
  });

/** A song without where it is, which changes with every frame: that is for canvases. */
const standing = (told: SongTold): SongTold => ({
  ...told,
  position: 0,
  beat: 0,
  bpm: 0,
  taken: 0,
  label: "",
});

/** A song as the engine tells it; null: it is not on stage. */
export const useSongTold = (id: number | null) =>
  useLivePart((state) => {
    const told = state?.songs?.find((one) => one.timeline === id && !one.leaving);
    return told ? standing(told) : null;
  });

/** All songs on stage, those on their way out too. */
export const useSongsTold = () => useLivePart((state) => state?.songs?.map(standing) ?? null);

/** The song on stage. */
export const useSongOnStage = () =>
  useLivePart((state) => state?.songs?.find((one) => !one.leaving)?.timeline ?? null);

type HandTold = SongTold["hands"][number];
/** Whether hands have taken something from the song on stage. */
export const useIsYours = (is: (hand: HandTold) => boolean) =>
  useLivePart((state) => state?.songs?.some((one) => one.hands.some(is)) ?? false);

/** What hands have of one of these subjects; null: all of them are the song's. */
export const useHandOf = (subjects: string[]) =>
  useLivePart(
    (state) =>
      state?.songs?.flatMap((one) => one.hands).find((hand) => subjects.includes(hand.subject)) ?? null,
  );

/** Put what an edit of events answers into the song that is shown, so that it need not be asked for whole. */
function patch(id: number, answer: Schemas["EventsEdited"]) {
  queries.setQueryData<Timeline>(key(id), (before) => {
    if (!before) return before;
    const now = new Map(answer.events.map((one) => [one.id, one as TimelineEvent]));
    const gone = new Set(answer.gone);
    const kept = before.events
      .filter((one) => !gone.has(one.id))
      .map((one) => {
        const changed = now.get(one.id);
        now.delete(one.id);
        return changed ?? one;
      });
    const events = [...kept, ...now.values()].sort((a, b) => a.at - b.at || a.id - b.id);
    return { ...before, events };
  });
}

type Asked = Promise<{ data?: unknown; error?: unknown; response: Response }>;

/** What can be done with a song: each is one edit, and what was refused is told. */
export function useTimelineEdits(id: number) {
  return useMemo(() => {
    const song = { params: { path: { timeline_id: id } } };
    const track = (track_id: number) => ({ params: { path: { track_id } } });
    const marker = (marker_id: number) => ({ params: { path: { marker_id } } });
    async function events(asked: Asked): Promise<TimelineEvent[] | null> {
      const queryKey = key(id);
      const asking = queries.isFetching({ queryKey }) > 0;
      try {
        // what is being asked for was answered before this edit: it must not come after its answer
        await queries.cancelQueries({ queryKey });
        const answer = await ownEdit(
          async () => (await take(asked as never)) as unknown as Schemas["EventsEdited"],
        );
        await queries.cancelQueries({ queryKey });
        patch(id, answer);
        if (asking) refresh();
        return answer.events as TimelineEvent[];
      } catch (error) {
        tell(error);
        refresh();
        return null;
      }
    }
    return {
      change: (body: Schemas["KeepTimeline"]) =>
        edited(() => take(api.PUT("/api/timelines/{timeline_id}", { ...song, body }))),
      remove: () => edited(() => take(api.DELETE("/api/timelines/{timeline_id}", song))),
      grid: (body: Schemas["GridBody"]) =>
        edited(() => take(api.POST("/api/timelines/{timeline_id}/grid", { ...song, body }))),
      time: (body: Schemas["TimeBody"]) =>
        edited(() => take(api.POST("/api/timelines/{timeline_id}/time", { ...song, body }))),
      lateness: (taps: number[]) =>
        take(api.POST("/api/timelines/{timeline_id}/lateness", { ...song, body: { taps } })),
      addMarker: (body: Schemas["MarkerDocument"]) =>
        edited(() => take(api.POST("/api/timelines/{timeline_id}/markers", { ...song, body }))),
      changeMarker: (one: number, body: Schemas["MarkerDocument"]) =>
        edited(() => take(api.PUT("/api/timelines/markers/{marker_id}", { ...marker(one), body }))),
      removeMarker: (one: number) =>
        edited(() => take(api.DELETE("/api/timelines/markers/{marker_id}", marker(one)))),
      markersText: () => take(api.GET("/api/timelines/{timeline_id}/markers.csv", song)),
      readMarkers: (text: string) =>
        edited(() => take(api.POST("/api/timelines/{timeline_id}/markers.csv", { ...song, body: { text } }))),
      addTrack: (body: Schemas["TrackDocument"]) =>
        edited(() => take(api.POST("/api/timelines/{timeline_id}/tracks", { ...song, body }))),
      changeTrack: (one: number, body: Schemas["TrackDocument"]) =>
        edited(() => take(api.PUT("/api/timelines/tracks/{track_id}", { ...track(one), body }))),
      removeTrack: (one: number) =>
        edited(() => take(api.DELETE("/api/timelines/tracks/{track_id}", track(one)))),
      orderTracks: (order: number[]) =>
        edited(() =>
          take(api.POST("/api/timelines/{timeline_id}/tracks/order", { ...song, body: { order } })),
        ),
      addEvents: (body: Schemas["NewEvents"]) => events(api.POST("/api/timelines/events", { body })),
      changeEvents: (changes: Schemas["EventChange"][], words: string) =>
        events(api.POST("/api/timelines/events/change", { body: { changes, words } })),
      removeEvents: (chosen: number[]) =>
        events(api.POST("/api/timelines/events/delete", { body: { events: chosen } })),
      nudge: (chosen: number[], seconds: number) =>
        events(api.POST("/api/timelines/events/nudge", { body: { events: chosen, seconds } })),
      quantise: (body: Schemas["QuantiseEvents"]) =>
        events(api.POST("/api/timelines/events/quantise", { body })),
      /** cut: those of them that go with it, in the same step. */
      copy: (chosen: number[], at: number | null, cut: number[] = []) =>
        events(
          api.POST("/api/timelines/{timeline_id}/events/copy", {
            ...song,
            body: { events: chosen, at, cut },
          }),
        ),
      keepRecording: (replaces: boolean) =>
        events(api.POST("/api/timelines/{timeline_id}/recording", { ...song, body: { replaces } })),
      /** A MIDI file of presses: without lines, what is in it; with them, taken in onto their tracks. */
      presses(file: File, lines: [string, string][] | null, replaces: boolean): Promise<MidiLook | null> {
        const query = new URLSearchParams([
          ["preview", String(!lines)],
          ["replaces", String(replaces)],
          ...(lines ?? []).map(([key, track]) => ["lines", `${key}:${track}`]),
        ] as string[][]);
        return edited(() => putFile<MidiLook>(`/api/timelines/${id}/presses.mid?${query.toString()}`, file));
      },
      removeSound: () => edited(() => take(api.DELETE("/api/timelines/{timeline_id}/sound", song))),
      putSound: (file: File) => edited(() => putSound(id, file)),
    };
  }, [id]);
}

/** Send a sound file as it is; what is odd about it is told. */
async function putSound(id: number, file: File) {
  const answer = await putFile<Schemas["SoundView"]>(`/api/timelines/${id}/sound`, file);
  for (const notice of answer.notices) say(notice);
  return answer;
}

/** Ways to change which songs there are. */
export const songEdits = {
  add: (name: string, document: Schemas["TimelineDocument"]) =>
    edited(() => take(api.POST("/api/timelines", { body: { name, document } }))),
  order: (order: number[]) => edited(() => take(api.POST("/api/timelines/order", { body: { order } }))),
};

type Outlines = Schemas["OutlineView"];
/** Which outlines of a sound there are. */
export const useOutlines = (hash: string | null) =>
  useQuery({
    queryKey: ["sound", hash],
    enabled: hash !== null,
    queryFn: async () =>
      (await take(
        api.GET("/api/sounds/{hash}/outline", { params: { path: { hash: hash! } } } as never),
      )) as unknown as Outlines,
  });

/** One of them: lowest and highest of each block, as signed bytes. */
export const useOutline = (hash: string | null, level: number) =>
  useQuery({
    queryKey: ["sound", hash, level],
    enabled: hash !== null && level >= 0,
    queryFn: async () =>
      new Int8Array(await (await fetch(`/api/sounds/${hash}/outline.bin?level=${level}`)).arrayBuffer()),
    placeholderData: (before) => before,
    structuralSharing: false,
  });
