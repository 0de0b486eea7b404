import { Square } from "lucide-react";

import { useBusk, useBuskTold } from "../api/busk";
import { act } from "../live/socket";
import { desk } from "../state";
import { Button } from "../ui/Button";
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
    <Chip>
      <Button data-variant="plain" className="name" onPress={() => desk.show("busk")}>
        <span>Two colours</span>
        <span className="from">
          {rows.map((row) => row.name).join(", ")} · {Math.round(two.mix * 100)} %
        </span>
      </Button>
      <Button data-variant="plain" aria-label="Stop Two colours" onPress={() => act(STOPPED)}>
        <Square size={12} fill="currentColor" aria-hidden="true" />
      </Button>
    </Chip>
  );
}
