import { useQuery } from "@tanstack/react-query";

import { say } from "../ui/Toasts";
import { api, putFile, take, type Headers, type Schemas } from "./client";
import { queries, refresh, tell } from "./queries";

export type ShowEntry = Schemas["ShowEntryView"];
export type Shows = Schemas["ShowsView"];
export type ShowPart = Schemas["ShowPartView"];
export type PartsReport = Schemas["PartsReport"];
export type Copy = Schemas["CopyView"];
const KEY = ["shows"];
const REFRESH_MS = 10_000;

/** All shows of the library. */
export const useShows = () =>
  useQuery({ queryKey: KEY, queryFn: () => take(api.GET("/api/shows")), refetchInterval: REFRESH_MS });
/** Copies of the open show. */
export const useCopies = () =>
  useQuery({
    queryKey: [...KEY, "copies"],
    queryFn: async () => (await take(api.GET("/api/shows/copies"))).copies,
    refetchInterval: REFRESH_MS,
  });
/** What is in a copy, beside what the show has now. */
export const useCopyLook = (file: string) =>
  useQuery({
    queryKey: [...KEY, "copy", file],
    queryFn: () => take(api.GET("/api/shows/copies/{file}", { params: { path: { file } } })),
    staleTime: 0,
  });
/** What of a show can be brought into the open one. */
export const useParts = (show_id: string) =>
  useQuery({
    queryKey: [...KEY, "parts", show_id],
    queryFn: async () =>
      (await take(api.GET("/api/shows/{show_id}/parts", { params: { path: { show_id } } }))).parts,
  });
export const pictureOf = (one: ShowEntry) =>
  one.picture ? `/api/shows/${one.id}/picture.png?${one.picture}` : null;
export const fileOf = (one: ShowEntry) => `/api/shows/${one.id}/file`;

const path = (show_id: string) => ({ params: { path: { show_id } } });

/** Do something, say what was done or what was wrong, and look at the list anew. */
async function done<Answer extends { done: string }>(asked: Promise<Answer>): Promise<Answer | null> {
  try {
    const answer = await asked;
    say(`${answer.done}.`, "done");
    return answer;
  } catch (error) {
    tell(error);
    return null;
  } finally {
    void queries.invalidateQueries({ queryKey: KEY });
    refresh();
  }
}

export const showEdits = {
  make: (body: Schemas["NewShow"]) => done(take(api.POST("/api/shows", { body }))),
  open: (id: string) => done(take(api.POST("/api/shows/{show_id}/open", path(id)))),
  copy: (id: string, name: string) =>
    done(take(api.POST("/api/shows/{show_id}/copy", { ...path(id), body: { name } }))),
  rename: (id: string, name: string) =>
    done(take(api.PUT("/api/shows/{show_id}", { ...path(id), body: { name } }))),
  remove: (id: string) => done(take(api.DELETE("/api/shows/{show_id}", path(id)))),
  takeBack: (id: string) => done(take(api.POST("/api/shows/{show_id}/take-back", path(id)))),
  emptyBin: () => done(take(api.POST("/api/shows/bin/empty"))),
  /** What bringing in parts would do. */
  seeParts: (id: string, body: Schemas["PartsChosen"]) =>
    take(api.POST("/api/shows/{show_id}/parts", { ...path(id), body })).catch((error: unknown) => {
      tell(error);
      return null;
    }),
  bringIn: (id: string, body: Schemas["PartsChosen"]) =>
    done(take(api.POST("/api/shows/{show_id}/parts", { ...path(id), body }))),
  takeBackCopy: (file: string, headers: Headers) =>
    done(take(api.POST("/api/shows/copies/{file}/take-back", { params: { path: { file } }, headers }))),
  /** Take in a saved show: it becomes another one of the library. */
  takeIn: (file: File, headers: Headers) => done(putFile<Schemas["Made"]>("/api/shows/file", file, headers)),
};
