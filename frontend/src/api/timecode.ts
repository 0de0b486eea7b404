import { useQuery } from "@tanstack/react-query";

import { api, take, type Schemas } from "./client";
import { queries, refresh, tell } from "./queries";

export type TimecodeView = Schemas["TimecodeView"];
const KEY = ["timelines", "timecode"];

/** Where timecode comes from, and how the simulated player is: looked at while it plays. */
export const useTimecode = () =>
  useQuery({
    queryKey: KEY,
    queryFn: () => take(api.GET("/api/output/timecode")),
    refetchInterval: 500,
  });

async function done(asked: Promise<TimecodeView>) {
  try {
    queries.setQueryData(KEY, await asked);
  } catch (error) {
    tell(error);
  }
}

export const timecodeEdits = {
  source: (source: string) =>
    done(take(api.PUT("/api/output/timecode", { body: { source } }))).finally(refresh),
  player: (body: Schemas["PlayerBody"]) => done(take(api.POST("/api/output/timecode/player", { body }))),
};
