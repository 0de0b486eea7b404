import { useOverlaysTold } from "../api/looks";
import { act, useLivePart } from "../live/socket";
import { Chip } from "./Chip";

type Told = NonNullable<ReturnType<typeof useOverlaysTold>>[number];

/** How far an overlay lies over what runs, and when it is there. */
export function overlayWords(told: Told, now: number): string {
  if (told.until != null && told.until > now)
    return `overlay · ${told.on ? "coming in" : "going"}, ${(told.until - now).toFixed(1)} s`;
  return `overlay · ${Math.round(told.share * 100)} %`;
}

/** Overlays that lie over what runs, and looks that buttons and faders hold. */
export function LookChips() {
  const overlays = useOverlaysTold()?.filter((one) => one.on || one.share > 0);
  const looks = useLivePart((state) => state?.looks ?? null);
  const levels = useLivePart((state) => looks?.map((one) => state?.levels[one.control] ?? 0) ?? null);
  return (
    <>
      {overlays?.map((told) => (
        <Chip
          key={told.id}
          name={told.name}
          from={(now) => overlayWords(told, now)}
          isFading={!told.on}
          stop={{
            label: `Take out ${told.name}`,
            does: () => act({ do: "overlay", overlay: told.id, on: false }),
          }}
        />
      ))}
      {looks?.map((one, n) => (
        <Chip
          key={one.control}
          name={one.name}
          from={`${one.source}${(levels?.[n] ?? 1) < 1 ? ` · ${Math.round(levels![n]! * 100)} %` : ""}`}
          stop={{
            label: `Let go of ${one.name}`,
            does: () => act({ do: "release-control", control: one.control }),
          }}
        />
      ))}
    </>
  );
}
