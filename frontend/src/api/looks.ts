import { useQuery } from "@tanstack/react-query";

import { useLivePart, type LiveState } from "../live/socket";
import { say } from "../ui/Toasts";
import { api, take, type Schemas } from "./client";
import { edited } from "./hand";

export type Look = Schemas["LookView"];
export type LookSource = Schemas["LookSource"];
export type OverlayTold = NonNullable<LiveState["overlays"]>[number];

/** All kept looks, overlays among them. */
export const useLooks = (needed = true) =>
  useQuery({
    queryKey: ["looks"],
    enabled: needed,
    queryFn: async () => (await take(api.GET("/api/looks"))).looks,
  });

/** Overlays as the engine tells them. */
export const useOverlaysTold = () => useLivePart((state) => state?.overlays ?? null);

const path = (look_id: number) => ({ params: { path: { look_id } } });

/** What can be done with looks: each is one edit, and what was refused is told. */
export const lookEdits = {
  make: (body: Schemas["NewLook"]) => edited(() => take(api.POST("/api/looks", { body }))),
  change: (id: number, body: Schemas["LookChange"]) =>
    edited(() => take(api.PUT("/api/looks/{look_id}", { ...path(id), body }))),
  record: async (id: number, body: LookSource) => {
    const done = await edited(() => take(api.POST("/api/looks/{look_id}/record", { ...path(id), body })));
    if (done) say(`${done.done}.`, "done");
  },
  remove: async (id: number) => {
    const done = await edited(() => take(api.DELETE("/api/looks/{look_id}", path(id))));
    if (done) say(`${done.done}. Undo brings it back.`, "done");
  },
  order: (ids: number[]) => edited(() => take(api.POST("/api/looks/order", { body: { ids } }))),
};
