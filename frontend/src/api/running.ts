import { useQuery } from "@tanstack/react-query";

import { useLivePart } from "../live/socket";
import { api, take } from "./client";

/** On which heads an effect runs now; asked for anew when something of it starts or ends. */
export function useRuns(effect_id: number) {
  const playing = useLivePart(
    (state) =>
      state?.running
        .filter((one) => one.effect_id === effect_id)
        .map((one) => `${one.key} ${one.stopping}`)
        .join() ?? "",
  );
  const { data } = useQuery({
    queryKey: ["runs", effect_id, playing],
    queryFn: async () =>
      (await take(api.GET("/api/running/effects/{effect_id}", { params: { path: { effect_id } } }))).runs,
    placeholderData: (before) => before,
  });
  return playing ? (data ?? []) : [];
}
