import { useQuery } from "@tanstack/react-query";

import { useLivePart, type LiveState } from "../live/socket";
import { say } from "../ui/Toasts";
import { api, take, type Schemas } from "./client";
import { edited } from "./hand";

export type Special = Schemas["SpecialView"];
export type SpecialDocument = Schemas["SpecialDocument"];
export type SpecialTold = NonNullable<LiveState["specials"]>[number];
export type NamedPlace = Schemas["PlaceView"];

/** All specials and named places. */
export const useSpecials = () =>
  useQuery({
    queryKey: ["specials"],
    // the client's types forget that points are triples
    queryFn: async () => (await take(api.GET("/api/specials"))) as Schemas["SpecialsView"],
  });

/** Specials as the engine tells them: all, in their order. */
export const useSpecialsTold = () => useLivePart((state) => state?.specials ?? null);

const path = (special_id: number) => ({ params: { path: { special_id } } });
const placePath = (place_id: number) => ({ params: { path: { place_id } } });

async function deleted(asked: Promise<{ done: string } | null>) {
  const done = await asked;
  if (done) say(`${done.done}. Undo brings it back.`, "done");
}

/** What can be done with specials and places: each is one edit, and what was refused is told. */
export const specialEdits = {
  make: (body: Schemas["KeepSpecial"]) => edited(() => take(api.POST("/api/specials", { body }))),
  change: (id: number, body: Schemas["KeepSpecial"]) =>
    edited(() => take(api.PUT("/api/specials/{special_id}", { ...path(id), body }))),
  remove: (id: number) => deleted(edited(() => take(api.DELETE("/api/specials/{special_id}", path(id))))),
  makePlace: (body: Schemas["KeepPlace"]) => edited(() => take(api.POST("/api/specials/places", { body }))),
  changePlace: (id: number, body: Schemas["KeepPlace"]) =>
    edited(() => take(api.PUT("/api/specials/places/{place_id}", { ...placePath(id), body }))),
  removePlace: (id: number) =>
    deleted(edited(() => take(api.DELETE("/api/specials/places/{place_id}", placePath(id))))),
  /** Who could not reach it. */
  tryAim: (document: SpecialDocument) => take(api.POST("/api/specials/aim", { body: { document } })),
};
