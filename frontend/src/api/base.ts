import { useQuery } from "@tanstack/react-query";

import { useLivePart } from "../live/socket";
import { api, take } from "./client";

/** What chosen heads have below all effects. */
export function useBase(heads: string[]) {
  const lists = useLivePart((state) => state?.lists?.map(({ cue, went_at }) => [cue, went_at]) ?? []);
  return useQuery({
    queryKey: ["draft", "base", heads, lists],
    enabled: heads.length > 0,
    queryFn: () => take(api.POST("/api/draft/base", { body: { heads } })),
    placeholderData: (before) => before,
  });
}
