import { act, useLivePart } from "../live/socket";
import { Chip } from "./Chip";

/** Lights that stand in for broken ones, each with its way back. */
export function StandInChips() {
  const every = useLivePart((state) => state?.stand_ins ?? null);
  return every?.map(({ light, by }) => (
    <Chip
      key={light}
      name={`${by} for ${light}`}
      from="stands in, live"
      isFading={false}
      stop={{ label: `Give ${light} back`, does: () => act({ do: "stand-in", light, by: null }) }}
    />
  ));
}
