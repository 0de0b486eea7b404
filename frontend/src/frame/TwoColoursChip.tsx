import { useBusk, useBuskTold } from "../api/busk";
import { act } from "../live/socket";
import { Chip } from "./Chip";

const STOPPED = { do: "two-colours", mix: 0 } as const;

/** The two colours of the busking page, while they are laid over any row. */
export function TwoColoursChip() {
  const two = useBuskTold((told) => told.two);
  const runs = !!two && two.mix > 0 && two.rows.length > 0;
  const { data } = useBusk(runs);
  if (!runs) return null;
  const rows = data?.pages.flatMap((page) => page.rows).filter((row) => two.rows.includes(row.id)) ?? [];
  return (
    <Chip
      name="Two colours"
      from={`${rows.map((row) => row.name).join(", ")} · ${Math.round(two.mix * 100)} %`}
      stop={{ label: "Stop Two colours", does: () => act(STOPPED) }}
    />
  );
}
