import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";

import { useLivePart, type LiveState } from "../live/socket";
import { say } from "../ui/Toasts";
import { api, take, type Schemas } from "./client";
import { edited } from "./hand";

export type BuskPage = Schemas["BuskPageView"];
export type BuskRow = Schemas["BuskRowView"];
export type BuskPad = Schemas["BuskPadView"];
export type Section = BuskRow["carries"][number];
export type RowTold = NonNullable<LiveState["rows"]>[number];
export type BuskTold = NonNullable<LiveState["busk"]>;
export type Clashes = Schemas["BuskView"]["clashes"];

/** All busking pages with their rows and pads; asked for only where they are needed. */
export const useBusk = (needed = true) =>
  useQuery({ queryKey: ["busk"], enabled: needed, queryFn: () => take(api.GET("/api/busk")) });

/** What a new page could be made of. */
export const useProposal = () =>
  useQuery({
    queryKey: ["busk-proposal"],
    queryFn: async () => (await take(api.GET("/api/busk/proposal"))).groups,
    staleTime: 0,
    gcTime: 0,
  });

/** What a row has now, as the engine tells it. */
export const useRowTold = (id: number) =>
  useLivePart((state) => state?.rows?.find((one) => one.id === id) ?? null);

/** Something that goes over all rows, as the engine tells it. */
export const useBuskTold = <Part>(choose: (told: BuskTold) => Part) =>
  useLivePart((state) => (state?.busk ? choose(state.busk) : null));

/** What can be done with pages, rows and pads: each is one edit, and what was refused is told. */
export function useBuskEdits() {
  return useMemo(() => {
    const page = (page_id: number) => ({ params: { path: { page_id } } });
    const row = (row_id: number) => ({ params: { path: { row_id } } });
    return {
      make: (body: Schemas["NewBuskPage"]) => edited(() => take(api.POST("/api/busk/pages", { body }))),
      renamePage: (id: number, name: string) =>
        edited(() => take(api.POST("/api/busk/pages/{page_id}/rename", { ...page(id), body: { name } }))),
      removePage: async (id: number) => {
        const done = await edited(() => take(api.DELETE("/api/busk/pages/{page_id}", page(id))));
        if (done) say(`${done.done}. Undo brings it back.`, "done");
      },
      order: (id: number, ids: number[]) =>
        edited(() => take(api.POST("/api/busk/pages/{page_id}/order", { ...page(id), body: { ids } }))),
      addRow: (id: number, body: Schemas["AddBuskRow"]) =>
        edited(() => take(api.POST("/api/busk/pages/{page_id}/rows", { ...page(id), body }))),
      changeRow: (id: number, body: Schemas["ChangeBuskRow"]) =>
        edited(() => take(api.POST("/api/busk/rows/{row_id}", { ...row(id), body }))),
      removeRow: async (id: number) => {
        const done = await edited(() => take(api.DELETE("/api/busk/rows/{row_id}", row(id))));
        if (done) say(`${done.done}. Undo brings it back.`, "done");
      },
      pads: (id: number, section: Section, pads: Schemas["PadContent"][]) =>
        edited(() => take(api.PUT("/api/busk/rows/{row_id}/pads", { ...row(id), body: { section, pads } }))),
      keepTempo: async (tempo: string, bpm: number) => {
        const done = await edited(() => take(api.PUT("/api/busk/tempo", { body: { tempo, bpm } })));
        if (done) say(`${done.done}.`, "done");
      },
    };
  }, []);
}
