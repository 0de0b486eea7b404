import { useQuery } from "@tanstack/react-query";

import { useLivePart } from "../live/socket";
import { api, take, type Schemas } from "./client";
import { queries, refresh, tell } from "./queries";

export type LineView = Schemas["LineView"];
const KEY = ["line"];

/** Where sound comes in, and how the simulated line is. */
export const useLine = () =>
  useQuery({ queryKey: KEY, queryFn: () => take(api.GET("/api/output/line")), refetchInterval: 2000 });
/** What is heard of it, as the engine tells. */
export const useLineTold = () => useLivePart((state) => state?.line ?? null);

async function done(asked: Promise<LineView>) {
  try {
    queries.setQueryData(KEY, await asked);
  } catch (error) {
    tell(error);
  }
}

export const lineEdits = {
  source: (source: string) => done(take(api.PUT("/api/output/line", { body: { source } }))).finally(refresh),
  player: (body: Schemas["SoundBody"]) => done(take(api.POST("/api/output/line/player", { body }))),
};
