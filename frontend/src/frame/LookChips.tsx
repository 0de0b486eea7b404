import { Square } from "lucide-react";

import { useOverlaysTold } from "../api/looks";
import { useLiveText } from "../live/clock";
import { act, useLivePart } from "../live/socket";
import { desk } from "../state";
import { Button } from "../ui/Button";
import { Chip } from "./Chip";

type Told = NonNullable<ReturnType<typeof useOverlaysTold>>[number];

/** How far an overlay lies over what runs, and when it is there. */
export function overlayWords(told: Told, now: number): string {
  if (told.until != null && told.until > now)
    return `overlay · ${told.on ? "coming in" : "going"}, ${(told.until - now).toFixed(1)} s`;
  return `overlay · ${Math.round(told.share * 100)} %`;
}

function OverlayChip({ told }: { told: Told }) {
  const words = useLiveText<HTMLSpanElement>((now) => overlayWords(told, now));
  return (
    <Chip data-fading={!told.on || undefined}>
      <Button data-variant="plain" className="name" onPress={() => desk.show("busk")}>
        <span>{told.name}</span>
        <span className="from" ref={words} />
      </Button>
      <Button
        data-variant="plain"
        aria-label={`Take out ${told.name}`}
        onPress={() => act({ do: "overlay", overlay: told.id, on: false })}
      >
        <Square size={12} fill="currentColor" aria-hidden="true" />
      </Button>
    </Chip>
  );
}

/** Overlays that lie over what runs, and looks that buttons and faders hold. */
export function LookChips() {
  const overlays = useOverlaysTold()?.filter((one) => one.on || one.share > 0);
  const looks = useLivePart((state) => state?.looks ?? null);
  const levels = useLivePart((state) => looks?.map((one) => state?.levels[one.control] ?? 0) ?? null);
  return (
    <>
      {overlays?.map((told) => (
        <OverlayChip key={told.id} told={told} />
      ))}
      {looks?.map((one, n) => (
        <Chip key={one.control}>
          <Button data-variant="plain" className="name" onPress={() => desk.show("busk")}>
            <span>{one.name}</span>
            <span className="from">
              {one.source}
              {(levels?.[n] ?? 1) < 1 ? ` · ${Math.round(levels![n]! * 100)} %` : ""}
            </span>
          </Button>
          <Button
            data-variant="plain"
            aria-label={`Let go of ${one.name}`}
            onPress={() => act({ do: "release-control", control: one.control })}
          >
            <Square size={12} fill="currentColor" aria-hidden="true" />
          </Button>
        </Chip>
      ))}
    </>
  );
}
