import type { LiveState } from "../../../live/socket";

export type Second = LiveState["health"]["minute"][number];
export const SECONDS = 60;

/** Where a second stands in the picture: the newest at the right. Heights as shares of the budget, cut at 1. */
export interface Bar {
  x: number;
  width: number;
  middle: number;
  worst: number;
  late: boolean;
}

/** The last minute as bars over a width; seconds that are not there yet leave room at the left. */
export function bars(minute: readonly Second[], budget: number, width: number): Bar[] {
  const each = width / SECONDS;
  return minute.slice(-SECONDS).map((second, index, shown) => ({
    x: width - (shown.length - index) * each,
    width: each - 1,
    middle: Math.min(1, second.middle_ms / budget),
    worst: Math.min(1, second.worst_ms / budget),
    late: second.late > 0,
  }));
}
