import { QueryClient, useMutation, useQuery, type QueryKey } from "@tanstack/react-query";

import { say } from "../ui/Toasts";
import { rigOf } from "./rig";
import { api, Refused, take, type Schemas } from "./client";

/** Whether to ask once more: not for what is gone. */
const again = (failed: number, error: Error) =>
  failed < 1 && !(error instanceof Refused && error.status === 404);

export const queries = new QueryClient({
  defaultOptions: { queries: { staleTime: Infinity, retry: again, refetchOnWindowFocus: false } },
});

type Show = Schemas["ShowView"];
/** Some of the show: the same object until something in it changes. */
export const useShow = <Part>(choose: (show: Show) => Part) =>
  useQuery({ queryKey: ["show"], queryFn: () => take(api.GET("/api/show")), select: choose });
/** The rig: asked for anew only when an edit has touched it. */
export function useRig() {
  const { data: edition } = useShow((show) => show.rig);
  return useQuery({
    queryKey: ["rig", edition],
    enabled: edition !== undefined,
    // the client's types forget that places are triples
    queryFn: async () => rigOf((await take(api.GET("/api/rig"))) as Schemas["RigView"]),
    placeholderData: (before) => before,
    structuralSharing: false,
  });
}
/** What is odd about the rig, asked for anew with it, and with the routes. */
export function useOdd() {
  const { data: edition } = useShow((show) => `${show.rig} ${show.routes}`);
  return useQuery({
    queryKey: ["odd", edition],
    enabled: edition !== undefined,
    queryFn: async () => (await take(api.GET("/api/rig/check"))).odd,
    placeholderData: (before) => before,
  });
}
/** All modes that fixtures can have. */
export function useKinds() {
  const { data: edition } = useShow((show) => show.rig);
  return useQuery({
    queryKey: ["kinds", edition],
    enabled: edition !== undefined,
    queryFn: () => take(api.GET("/api/kinds")),
    placeholderData: (before) => before,
  });
}
export const useLibrary = () =>
  useQuery({ queryKey: ["effects"], queryFn: () => take(api.GET("/api/effects")) });
export const useDraft = () => useQuery({ queryKey: ["draft"], queryFn: () => take(api.GET("/api/draft")) });
export const usePalettes = () =>
  useQuery({ queryKey: ["palettes"], queryFn: () => take(api.GET("/api/palettes")) });
export const useUniverses = () =>
  useQuery({ queryKey: ["universes"], queryFn: () => take(api.GET("/api/output/universes")) });

export const useEffectView = (id: number | null) =>
  useQuery({
    queryKey: ["effect", id],
    enabled: id !== null,
    queryFn: () => take(api.GET("/api/effects/{effect_id}", { params: { path: { effect_id: id! } } })),
    structuralSharing: false, // what an edit answers is shown as it is
  });

/** A weave; `kind` thumb: on a made-up row, so that only the document can change it. */
export const useWeave = (
  id: number,
  document: unknown,
  ask: Schemas["WeaveAsk"],
  kind: "weave" | "thumb" = "weave",
) =>
  useQuery({
    queryKey: [kind, id, document, ask],
    queryFn: () =>
      take(api.POST("/api/effects/{effect_id}/weave", { params: { path: { effect_id: id } }, body: ask })),
    placeholderData: (before) => before,
    structuralSharing: false,
  });

const SOON_MS = 150;
let soon = 0;

/** Ask anew; what is being asked for the first time and may be answered as it was before the edit, too. */
async function askAnew(queryKey: QueryKey) {
  await queries.cancelQueries({ queryKey, predicate: (query) => query.state.data === undefined });
  await queries.invalidateQueries({ queryKey });
}

/** Ask anew for everything that an edit of the show can change; for many edits in a row, once. */
export function refresh() {
  clearTimeout(soon);
  soon = window.setTimeout(() => {
    const stale: QueryKey[] = [
      ["show"],
      ["effects"],
      ["effect"],
      ["draft"],
      ["pages"],
      ["busk"],
      ["specials"],
      ["looks"],
      ["action-lists"],
      ["palettes"],
      ["cue-lists"],
      ["cue-updates"],
      ["weave"],
      ["timelines"],
      ["pixels"],
      ["media"],
    ];
    for (const queryKey of stale) void askAnew(queryKey);
  }, SOON_MS);
}

/** Who counts the revisions of the show, and how far it has come. */
export interface Revision {
  session: string;
  revision: number;
}
const MOST_HEARD = 100;

const ours = new Set<number>();
const heard = new Set<number>();
let asking = 0;
let listening = 0;

/** Make an edit whose outcome its answer tells whole: the revision that it makes needs no asking anew. */
export async function ownEdit<T extends { revision?: number }>(edit: () => Promise<T>): Promise<T> {
  asking += 1;
  try {
    const answer = await edit();
    ours.add(answer.revision ?? 0);
    return answer;
  } finally {
    asking -= 1;
  }
}

/** The show has gone from one revision to another: ask anew, unless all of that was done here. */
export function showHasChanged(before: Revision, now: Revision) {
  const steps = now.revision - before.revision;
  if (before.session !== now.session || steps < 0 || steps > MOST_HEARD) {
    ours.clear(); // another counter, or too long ago: whatever it was, it was not all done here
    heard.add(-1);
  } else for (let n = 1; n <= steps; n++) heard.add(before.revision + n);
  clearTimeout(listening);
  listening = window.setTimeout(function settle() {
    if (asking) {
      listening = window.setTimeout(settle, SOON_MS);
      return;
    }
    const others = [...heard].some((revision) => !ours.has(revision));
    heard.clear();
    ours.clear();
    if (others) refresh();
    else void queries.invalidateQueries({ queryKey: ["show"] });
  }, SOON_MS);
}

const BEHIND_MS = 1000;
let behindSince: number | null = null;

/** What was fetched is of an older revision than the engine tells, and has been for a while: an edit was missed. Ask anew. */
export function catchUp(told: Revision, now: number) {
  const shown = queries.getQueryData<Show>(["show"]);
  const behind = shown !== undefined && shown.session === told.session && shown.revision < told.revision;
  if (!behind) behindSince = null;
  else if (behindSince === null) behindSince = now;
  else if (now - behindSince > BEHIND_MS) {
    behindSince = null;
    refresh();
  }
}

/** Tell the user what was refused. */
export function tell(error: unknown) {
  say(error instanceof Refused ? error.message : String(error));
}

/** An edit of the show: refreshes what it changed, says what was refused. */
export function useEdit<Input, Output>(edit: (input: Input) => Promise<Output>) {
  return useMutation({ mutationFn: edit, onSuccess: refresh, onError: tell });
}
