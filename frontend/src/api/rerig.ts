import { keepPreviousData, useQuery } from "@tanstack/react-query";

import { say } from "../ui/Toasts";
import { api, take, type Schemas } from "./client";
import { refresh, tell, useShow } from "./queries";

export type Pair = Required<Schemas["PairPart"]>;
export type PairSide = Schemas["SideView"];
export type PairMatch = Schemas["PairView"];
export type Matches = Schemas["MatchView"];
export type TakeOverAsk = Schemas["TakeOverAsk"];
export type TakenOver = Schemas["TakenOver"];
export const OWN_RIG = "this";

const edition = (show: { rig: unknown; revision: number }) => show.revision;

/** Rigs that the show can go to. */
export const useOtherRigs = () =>
  useQuery({
    queryKey: ["take-over", "rigs"],
    queryFn: async () => (await take(api.GET("/api/take-over/rigs"))).rigs,
    staleTime: 0,
  });

/** Both rigs, and pairs of their groups as they are proposed. */
export function useProposal(rig: string) {
  const { data: now } = useShow(edition);
  return useQuery({
    queryKey: ["take-over", "pairs", rig, now],
    enabled: !!rig && now !== undefined,
    queryFn: () => take(api.POST("/api/take-over/pairs", { body: { rig } })),
  });
}

/** How the lights of pairs are matched, and the weave of an effect on both sides of one. */
export const useMatches = (rig: string, pairs: Pair[], chosen: number, effect: number) =>
  useQuery({
    queryKey: ["take-over", "matches", rig, pairs, chosen, effect],
    enabled: pairs.length > 0,
    queryFn: () => take(api.POST("/api/take-over/matches", { body: { rig, pairs, chosen, effect } })),
    placeholderData: keepPreviousData,
  });

/** What taking over would change. */
export function useChanges(body: TakeOverAsk) {
  const { data: now } = useShow(edition);
  return useQuery({
    queryKey: ["take-over", "changes", body, now],
    enabled: body.pairs.some((pair) => pair.target),
    queryFn: () => take(api.POST("/api/take-over", { body })),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** Take over; whether it was done. */
export async function takeOver(body: TakeOverAsk): Promise<boolean> {
  try {
    const { done } = await take(api.POST("/api/take-over", { body: { ...body, preview: false } }));
    say(`${done}. The show as it was is a copy, in Shows.`, "done");
    return true;
  } catch (error) {
    tell(error);
    return false;
  } finally {
    refresh();
  }
}
