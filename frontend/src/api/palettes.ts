import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";

import { say } from "../ui/Toasts";
import { useDesk } from "../state";
import { api, take, type Schemas } from "./client";
import { edited } from "./hand";

export type Palette = Schemas["PaletteView"];

/** On how many of the heads each palette acts, by its number. */
export const useActing = (heads: string[]) =>
  useQuery({
    queryKey: ["palettes", "acting", heads],
    queryFn: async () => (await take(api.POST("/api/palettes/acting", { body: { heads } }))).acts,
    placeholderData: (before) => before,
  });

/** What can be done with palettes: each is one edit, and what was refused is told. */
export function usePaletteEdits() {
  const { position, others } = useDesk((state) => state.fades);
  return useMemo(() => {
    const path = (palette_id: number) => ({ params: { path: { palette_id } } });
    return {
      /** Set it on heads; none: on those that it was made with. Says on how many it acts. */
      use: async ({ id, family }: Palette, heads: string[]) => {
        const fade_s = family === "position" ? position : others;
        const answer = await edited(() =>
          take(api.POST("/api/draft/palette", { body: { palette: id, heads, fade_s, preview: false } })),
        );
        return answer?.text ?? null;
      },
      keep: (body: Schemas["KeepPalette"]) => edited(() => take(api.POST("/api/palettes/keep", { body }))),
      rename: (id: number, body: Schemas["RenamePalette"]) =>
        edited(() => take(api.POST("/api/palettes/{palette_id}/rename", { ...path(id), body }))),
      update: (id: number, heads: string[]) =>
        edited(() => take(api.POST("/api/palettes/{palette_id}/update", { ...path(id), body: { heads } }))),
      duplicate: (id: number) =>
        edited(() => take(api.POST("/api/palettes/{palette_id}/duplicate", path(id)))),
      merge: (id: number, other: number) =>
        edited(() => take(api.POST("/api/palettes/{palette_id}/merge", { ...path(id), body: { other } }))),
      replace: (id: number, by: number | null, gone: boolean) =>
        edited(() =>
          take(api.POST("/api/palettes/{palette_id}/replace", { ...path(id), body: { by, delete: gone } })),
        ),
      remove: (id: number) => edited(() => take(api.DELETE("/api/palettes/{palette_id}", path(id)))),
      order: (ids: number[]) => edited(() => take(api.POST("/api/palettes/order", { body: { ids } }))),
      colours: async (body: Schemas["ColourSet"]) => {
        const made = await edited(() => take(api.POST("/api/palettes/sets/colours", { body })));
        if (made) say(`${made.done}.`, "done");
        return made;
      },
      positions: async (group: number) => {
        const made = await edited(() => take(api.POST("/api/palettes/sets/positions", { body: { group } })));
        if (made) say(`${made.done}.`, "done");
        return made;
      },
    };
  }, [position, others]);
}
