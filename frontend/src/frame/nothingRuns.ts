import type { Schemas } from "../api/client";

/** Whether there is no chip at all. */
export function nothingRuns(state: Schemas["LiveState"] | null): boolean {
  if (!state) return false;
  const { running, lists, specials, overlays, looks, actions, busk, pixels } = state;
  const over = overlays?.some((one) => one.on || one.share > 0);
  const shown =
    lists?.some((one) => one.cue !== null) || specials?.some((one) => one.phase !== "off") || over;
  const two = busk && busk.two.mix > 0 && busk.two.rows.length > 0;
  return (
    !state.songs?.length &&
    !running.length &&
    !shown &&
    !looks?.length &&
    !pixels?.length &&
    !actions?.length &&
    !state.stand_ins?.length &&
    !state.recorded &&
    !state.recorder?.name &&
    !two
  );
}
