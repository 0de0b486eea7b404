import type { Schemas } from "../api/client";
import { act } from "../live/socket";
import { Chip } from "./Chip";

type Told = NonNullable<Schemas["LiveState"]["actions"]>[number];

/** Where an action list is, in words. */
export function actionWords(told: Told, now: number): string {
  const next =
    told.due == null ? "until it is released" : `next in ${Math.max(told.due - now, 0).toFixed(1)} s`;
  return `action list · ${told.place} of ${told.of}, ${next}`;
}

/** An action list that runs. */
export function ActionsChip({ told }: { told: Told }) {
  return (
    <Chip
      name={told.name}
      from={(now) => actionWords(told, now)}
      stop={{ label: `Call off ${told.name}`, does: () => act({ do: "call-off", actions: told.id }) }}
    />
  );
}
