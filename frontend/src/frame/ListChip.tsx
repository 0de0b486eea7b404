import { Square } from "lucide-react";

import { useList, type Told } from "../api/cues";
import { act } from "../live/socket";
import { desk } from "../state";
import { Button } from "../ui/Button";
import { Chip } from "./Chip";

const RELEASE_S = 2;

/** A cue list that is on a cue. */
export function ListChip({ told }: { told: Told }) {
  const { data: list } = useList(told.id);
  const row = list?.rows.find((one) => one.id === told.cue);
  if (!list) return null;
  const level = told.level < 1 ? ` · ${Math.round(told.level * 100)} %` : "";
  return (
    <Chip>
      <Button data-variant="plain" className="name" onPress={() => desk.openList(list.id, told.cue)}>
        <span>{list.name}</span>
        <span className="from">
          {row ? `cue ${row.number} · ${row.name}` : "a cue"}
          {told.paused_at !== null ? " · paused" : level}
        </span>
      </Button>
      <Button
        data-variant="plain"
        aria-label={`Release ${list.name}`}
        onPress={() => act({ do: "release", list: list.id, seconds: RELEASE_S })}
      >
        <Square size={12} fill="currentColor" aria-hidden="true" />
      </Button>
    </Chip>
  );
}
