import { useSongTold, type Track } from "../../api/timelines";

/** What of a song hands have: by its track, the subject to give back; null: it is the song's. */
export function useHeldSubjects(song: number) {
  const told = useSongTold(song);
  return (track: Track): string | null =>
    told?.hands.find((one) => one.tracks?.includes(track.id))?.subject ?? null;
}
