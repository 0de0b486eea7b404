import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";

import { useLivePart, type LiveState } from "../live/socket";
import { useDesk } from "../state";
import { api, take, type Schemas } from "./client";
import { edited } from "./hand";
import { refresh } from "./queries";

export type CueList = Schemas["ListView"];
export type CueRow = Schemas["CueRowView"];
export type CueContent = Schemas["CueContentView"];
export type Told = NonNullable<LiveState["lists"]>[number];

/** All cue lists in their order. */
export const useLists = () =>
  useQuery({
    queryKey: ["cue-lists"],
    queryFn: async () => (await take(api.GET("/api/cue-lists"))).lists,
  });

/** A list with its cues. */
export const useList = (id: number | null) =>
  useQuery({
    queryKey: ["cue-lists", id],
    enabled: id !== null,
    queryFn: () => take(api.GET("/api/cue-lists/{list_id}", { params: { path: { list_id: id! } } })),
    placeholderData: (before) => (before?.id === id ? before : undefined),
  });

/** A cue with all that holds in it. */
export const useCue = (id: number | null) =>
  useQuery({
    queryKey: ["cue-lists", "cue", id],
    enabled: id !== null,
    queryFn: () => take(api.GET("/api/cues/{cue_id}", { params: { path: { cue_id: id! } } })),
    placeholderData: (before) => before,
  });

/** What was changed by hand, by the cue that each value on stage comes from. */
export const useUpdates = () =>
  useQuery({
    queryKey: ["cue-updates"],
    queryFn: () => take(api.GET("/api/cues/updates")),
    gcTime: 0,
    staleTime: 0,
  });

/** Where a cue differs from the stage; asked for anew each time it is looked at. */
export const useDifferences = (id: number) =>
  useQuery({
    queryKey: ["cue-differences", id],
    queryFn: async () =>
      (await take(api.GET("/api/cues/{cue_id}/differences", { params: { path: { cue_id: id } } }))).lines,
    gcTime: 0,
    staleTime: 0,
  });

/** Where a list is, as the engine tells it. */
export const useTold = (id: number | null) =>
  useLivePart((state) => state?.lists?.find((one) => one.id === id) ?? null);

/** The list that is looked at, and that Space plays: the chosen one, else the first. */
export function useChosenList(): number | null {
  const { data: lists } = useLists();
  const chosen = useDesk((state) => state.list);
  return lists?.find((one) => one.id === chosen)?.id ?? lists?.[0]?.id ?? null;
}

/** What can be done with lists and cues: each is one edit, and what was refused is told. */
export function useCueEdits() {
  return useMemo(() => {
    const list = (list_id: number) => ({ params: { path: { list_id } } });
    const cue = (cue_id: number) => ({ params: { path: { cue_id } } });
    return {
      addList: (name: string) => edited(() => take(api.POST("/api/cue-lists", { body: { name } }))),
      changeList: (id: number, body: Schemas["ListContent"]) =>
        edited(() => take(api.PUT("/api/cue-lists/{list_id}", { ...list(id), body }))),
      removeList: (id: number) => edited(() => take(api.DELETE("/api/cue-lists/{list_id}", list(id)))),
      orderLists: (ids: number[]) => edited(() => take(api.POST("/api/cue-lists/order", { body: { ids } }))),
      record: (id: number, body: Schemas["NewCue"]) =>
        edited(() => take(api.POST("/api/cue-lists/{list_id}/cues", { ...list(id), body }))),
      recordInto: (id: number, body: Schemas["RecordInto"]) =>
        edited(() => take(api.POST("/api/cues/{cue_id}/record", { ...cue(id), body }))),
      change: (id: number, body: Schemas["CueChange"]) =>
        edited(() => take(api.PUT("/api/cues/{cue_id}", { ...cue(id), body }))),
      values: (id: number, body: Schemas["ValueChange"]) =>
        edited(() => take(api.POST("/api/cues/{cue_id}/values", { ...cue(id), body }))),
      mark: (id: number, body: Schemas["ValueMark"]) =>
        edited(() => take(api.POST("/api/cues/{cue_id}/mark", { ...cue(id), body }))),
      /** Refused is thrown: what is wrong is said in the form. */
      async messages(id: number, messages: Schemas["CueMessages"]["messages"]) {
        await take(api.PUT("/api/cues/{cue_id}/messages", { ...cue(id), body: { messages } }));
        refresh();
      },
      pixels: (id: number, pixels: Schemas["CuePixelsPut"]["pixels"]) =>
        edited(() => take(api.PUT("/api/cues/{cue_id}/pixels", { ...cue(id), body: { pixels } }))),
      effect: (id: number, change: Schemas["CueEffect"]) =>
        edited(() => take(api.POST("/api/cues/{cue_id}/effects", { ...cue(id), body: { change } }))),
      thread: (id: number, thread: number, body: Schemas["ThreadChange"]) =>
        edited(() =>
          take(
            api.PUT("/api/cue-lists/{list_id}/threads/{thread}", {
              params: { path: { list_id: id, thread } },
              body,
            }),
          ),
        ),
      remove: (id: number) => edited(() => take(api.DELETE("/api/cues/{cue_id}", cue(id)))),
      split: (id: number, families: Schemas["Splitting"]["families"]) =>
        edited(() => take(api.POST("/api/cues/{cue_id}/split", { ...cue(id), body: { families } }))),
      renumber: (id: number, body: Schemas["Renumbering"]) =>
        edited(() => take(api.POST("/api/cue-lists/{list_id}/renumber", { ...list(id), body }))),
      paste: (id: number, cues: number[], after: number | null) =>
        edited(() =>
          take(api.POST("/api/cue-lists/{list_id}/paste", { ...list(id), body: { cues, after } })),
        ),
      update: (body: Schemas["UpdateAsk"]) => edited(() => take(api.POST("/api/cues/updates", { body }))),
    };
  }, []);
}
