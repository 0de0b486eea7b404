import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";

import { act, useLivePart, type LiveState } from "../live/socket";
import { say } from "../ui/Toasts";
import { api, putFile, take, type Schemas } from "./client";
import { edited } from "./hand";
import { Newest } from "./newest";
import { refresh, tell } from "./queries";

export type PixelMap = Schemas["MapView"];
export type Layer = Schemas["LayerView"];
export type Cells = Schemas["CellsView"];
export type Picture = Schemas["PictureView"];
export type Canvas = Schemas["CanvasDocument"];
export type Medium = Schemas["MediumView"];
export type PixelsTold = NonNullable<LiveState["pixels"]>[number];

/** All maps, and the pictures of the library. */
export const usePixels = (needed = true) =>
  useQuery({ queryKey: ["pixels"], enabled: needed, queryFn: () => take(api.GET("/api/pixels")) });
/** What layers are put together from. */
export const usePixelTables = () =>
  useQuery({ queryKey: ["pixel-tables"], queryFn: () => take(api.GET("/api/pixels/tables")) });
/** A map with its layers. */
export const useMap = (id: number | null) =>
  useQuery({
    queryKey: ["pixels", id],
    enabled: id !== null,
    queryFn: () => take(api.GET("/api/pixels/{map_id}", { params: { path: { map_id: id! } } })),
    placeholderData: (before) => (before?.id === id ? before : undefined),
  });
/** Where the cells of a map are. */
export const useCells = (id: number | null, edition: string | undefined) =>
  useQuery({
    queryKey: ["pixel-cells", id, edition],
    enabled: id !== null && edition !== undefined,
    queryFn: () => take(api.GET("/api/pixels/{map_id}/cells", { params: { path: { map_id: id! } } })),
    placeholderData: (before) => before,
    structuralSharing: false,
  });
/** Pictures and films of the show. */
export const useMedia = () =>
  useQuery({ queryKey: ["media"], queryFn: async () => (await take(api.GET("/api/media"))).media });

/** Maps on stage, as the engine tells them. */
export const usePixelsTold = () => useLivePart((state) => state?.pixels ?? null);
/** The map, and the picture on it, that screens show while the stage stays. */
export const usePixelsSeen = () => useLivePart((state) => state?.pixels_seen ?? null);

const mapPath = (map_id: number) => ({ params: { path: { map_id } } });
const layerPath = (map_id: number, layer_id: number) => ({ params: { path: { map_id, layer_id } } });

export const pixelEdits = {
  make: (body: Schemas["NewPixelMap"]) => edited(() => take(api.POST("/api/pixels", { body }))),
  remove: async (id: number) => {
    const done = await edited(() => take(api.DELETE("/api/pixels/{map_id}", mapPath(id))));
    if (done) say(`${done.done}. Undo brings it back.`, "done");
  },
  keep: async (body: Schemas["NewPicture"]) => {
    const done = await edited(() => take(api.POST("/api/pixels/pictures", { body })));
    if (done) say(`${done.done}.`, "done");
    return done;
  },
  removePicture: async (picture_id: number) => {
    const path = { params: { path: { picture_id } } };
    const done = await edited(() => take(api.DELETE("/api/pixels/pictures/{picture_id}", path)));
    if (done) say(`${done.done}. Undo brings it back.`, "done");
  },
  /** Take in a picture or film; what was refused is told. */
  async takeIn(file: File): Promise<Medium | null> {
    const answer = await edited(() => putFile<Schemas["MediumKept"]>("/api/media", file));
    return answer?.medium ?? null;
  },
  removeMedium: async (hash: string) => {
    const done = await edited(() => take(api.DELETE("/api/media/{hash}", { params: { path: { hash } } })));
    if (done) say(`${done.done}.`, "done");
  },
};

/** The ways to change a map: what an edit answers is shown at once. */
export function useMapEdits(id: number) {
  const client = useQueryClient();
  return useMemo(() => {
    const shown = (kept: Schemas["MapKept"]) => client.setQueryData(["pixels", id], kept.map);
    async function kept(asked: () => Promise<Schemas["MapKept"]>) {
      try {
        const answer = await asked();
        shown(answer);
        return answer;
      } catch (error) {
        tell(error);
        return null;
      } finally {
        refresh();
      }
    }
    const set = (layer: number, path: string, value: unknown, preview: boolean) =>
      take(
        api.POST("/api/pixels/{map_id}/layers/{layer_id}/change", {
          ...layerPath(id, layer),
          body: { path, value, preview },
        }),
      );
    const previews = new Newest(async (one: { layer: number; path: string; value: unknown }) => {
      shown(await set(one.layer, one.path, one.value, true));
    }, tell);
    return {
      change: (body: Schemas["MapChange"]) =>
        kept(() => take(api.PUT("/api/pixels/{map_id}", { ...mapPath(id), body }))),
      addLayer: (body: Schemas["NewLayer"]) =>
        kept(() => take(api.POST("/api/pixels/{map_id}/layers", { ...mapPath(id), body }))),
      removeLayer: (layer: number) =>
        kept(() => take(api.DELETE("/api/pixels/{map_id}/layers/{layer_id}", layerPath(id, layer)))),
      copyLayer: (layer: number) =>
        kept(() => take(api.POST("/api/pixels/{map_id}/layers/{layer_id}/copy", layerPath(id, layer)))),
      order: (ids: number[]) =>
        kept(() => take(api.POST("/api/pixels/{map_id}/order", { ...mapPath(id), body: { ids } }))),
      preview: (layer: number, path: string, value: unknown) => void previews.show({ layer, path, value }),
      set: (layer: number, path: string, value: unknown) => {
        previews.drop();
        return kept(() => set(layer, path, value, false));
      },
    };
  }, [client, id]);
}
export type MapEdits = ReturnType<typeof useMapEdits>;

/** Bring a map in or out; picture 0: its own layers. */
export const putOn = (map: number, on: boolean, picture = 0) => act({ do: "pixels", map, on, picture });
