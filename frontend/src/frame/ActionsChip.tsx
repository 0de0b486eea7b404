import { Square } from "lucide-react";

import type { Schemas } from "../api/client";
import { useLiveText } from "../live/clock";
import { act } from "../live/socket";
import { desk } from "../state";
import { Button } from "../ui/Button";
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
  const words = useLiveText<HTMLSpanElement>((now) => actionWords(told, now));
  return (
    <Chip>
      <Button data-variant="plain" className="name" onPress={() => desk.show("busk")}>
        <span>{told.name}</span>
        <span className="from" ref={words} />
      </Button>
      <Button
        data-variant="plain"
        aria-label={`Call off ${told.name}`}
        onPress={() => act({ do: "call-off", actions: told.id })}
      >
        <Square size={12} fill="currentColor" aria-hidden="true" />
      </Button>
    </Chip>
  );
}
