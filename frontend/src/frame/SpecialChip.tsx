import { Square } from "lucide-react";

import type { SpecialTold } from "../api/specials";
import { useLiveText } from "../live/clock";
import { act } from "../live/socket";
import { desk } from "../state";
import { Button } from "../ui/Button";
import { phaseWords } from "../views/busk/specials/phases";
import { Chip } from "./Chip";

/** A special that is on, or on its way there or home. */
export function SpecialChip({ told }: { told: SpecialTold }) {
  const phase = useLiveText<HTMLSpanElement>((now) => `special · ${phaseWords(told, now)}`);
  return (
    <Chip data-fading={!told.on || undefined}>
      <Button data-variant="plain" className="name" onPress={() => desk.show("busk")}>
        <span>{told.name}</span>
        <span className="from" ref={phase} />
      </Button>
      <Button
        data-variant="plain"
        aria-label={`${told.name}: home`}
        isDisabled={!told.on}
        onPress={() => act({ do: "special", special: told.id, on: false })}
      >
        <Square size={12} fill="currentColor" aria-hidden="true" />
      </Button>
    </Chip>
  );
}
