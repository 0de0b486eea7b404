import type { SpecialTold } from "../api/specials";
import { act } from "../live/socket";
import { phaseWords } from "../views/busk/specials/phases";
import { Chip } from "./Chip";

/** A special that is on, or on its way there or home. */
export function SpecialChip({ told }: { told: SpecialTold }) {
  return (
    <Chip
      name={told.name}
      from={(now) => `special · ${phaseWords(told, now)}`}
      isFading={!told.on}
      stop={{
        label: `${told.name}: home`,
        disabled: !told.on,
        does: () => act({ do: "special", special: told.id, on: false }),
      }}
    />
  );
}
