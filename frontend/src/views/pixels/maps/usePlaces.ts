import { useBusk, useBuskEdits } from "../../../api/busk";
import { api, take } from "../../../api/client";
import { useLists } from "../../../api/cues";
import { edited } from "../../../api/hand";
import { freePlaces, usePages } from "../../../api/pages";
import type { PixelMap } from "../../../api/pixels";
import { useSongs } from "../../../api/timelines";
import { content } from "../../busk/edit/PadList";

/** Ways to have a map at hand, and what each asks for. */
export const MODES = [
  { id: "fader", text: "Fader: its share", asks: "Page" },
  { id: "latch", text: "Button: in by a press, out by the next", asks: "Page" },
  { id: "flash", text: "Button: in while it is held", asks: "Page" },
  { id: "pad", text: "Pad of a row: in by a press, out by the next", asks: "Row" },
  { id: "cue", text: "A cue: the one that its list is on, else its last", asks: "Cue list" },
  { id: "presses", text: "A song: a track of its presses", asks: "Song" },
  { id: "levels", text: "A song: a track of its share", asks: "Song" },
] as const;
export type Mode = (typeof MODES)[number]["id"];

export interface PlaceToPut {
  id: number;
  text: string;
  isFull: boolean;
  /** Puts it there: says what was done, null: it was refused. */
  put: () => Promise<string | null>;
}
interface What {
  name: string;
  /** Of the library, 0: the map's own layers. */
  picture: number;
  /** Over or under the effects; null: as the map says. */
  over: boolean | null;
}

/** Where a map can be put, in a way. */
export function usePlaces(map: PixelMap, mode: Mode, { name, picture, over }: What): PlaceToPut[] {
  const { data: pages } = usePages();
  const { data: busk } = useBusk();
  const { data: lists = [] } = useLists();
  const { data: songs = [] } = useSongs();
  const buskEdits = useBuskEdits();
  if (mode === "cue")
    return lists.map(({ id, name: text }) => ({
      id,
      text,
      isFull: false,
      put: async () => {
        const path = { params: { path: { map_id: map.id } } };
        const body = { list: id, picture, over };
        const made = await edited(() => take(api.POST("/api/pixels/{map_id}/cue", { ...path, body })));
        return made ? `${made.done}.` : null;
      },
    }));
  if (mode === "pad")
    return (busk?.pages ?? []).flatMap((page) =>
      page.rows.map((row) => ({
        id: row.id,
        text: `${page.name}: ${row.name}`,
        isFull: false,
        put: async () => {
          const pad = { name: "", while_held: false, pixels: { map: map.id, picture } };
          const done = await buskEdits.pads(row.id, "effects", [...row.effects.map(content), pad]);
          return done ? `Put on ${row.name}.` : null;
        },
      })),
    );
  if (mode === "presses" || mode === "levels")
    return songs.map(({ id, name: text }) => ({
      id,
      text,
      isFull: false,
      put: async () => {
        const path = { params: { path: { timeline_id: id } } };
        const drives = `pixels:${map.id}:${picture}`;
        const body = { name, kind: mode, group: "light" as const, drives, armed: true };
        const done = await edited(() =>
          take(api.POST("/api/timelines/{timeline_id}/tracks", { ...path, body })),
        );
        return done ? `${text} has a track for it, armed: what is pressed while it records is kept.` : null;
      },
    }));
  return (pages?.pages ?? []).map((page) => {
    const [place] = freePlaces(
      page.controls,
      mode === "fader",
      mode === "fader" ? pages!.faders : pages!.buttons,
    );
    return {
      id: page.id,
      text: page.name,
      isFull: place === undefined,
      put: async () => {
        const path = { params: { path: { page_id: page.id } } };
        const drives = { kind: "pixels" as const, number: map.id, picture, over };
        const body = { place: place!, mode, name, drives };
        const done = await edited(() => take(api.POST("/api/pages/{page_id}/controls", { ...path, body })));
        return done ? `Put on ${page.name}.` : null;
      },
    };
  });
}
