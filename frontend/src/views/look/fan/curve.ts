/** The picture of a fan: heads from left to right, values upwards. */
export interface Frame {
  width: number;
  height: number;
  low: number;
  high: number;
}
const PAD_PX = 14;

/** From where to where the picture goes: a little more than the values need, within the range. */
export function spanOf(values: number[], low: number, high: number): { low: number; high: number } {
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const room = Math.max((most - least) * 0.25, (high - low) * 0.08);
  return { low: Math.max(least - room, low), high: Math.min(most + room, high) };
}

export function xOf(rank: number, count: number, { width }: Frame): number {
  return count < 2 ? width / 2 : PAD_PX + (rank / (count - 1)) * (width - 2 * PAD_PX);
}

export function yOf(value: number, { height, low, high }: Frame): number {
  return height - PAD_PX - ((value - low) / (high - low || 1)) * (height - 2 * PAD_PX);
}

/** The rank of the head nearest to a place across, and the value of a place upwards. */
export function dragTo(x: number, y: number, count: number, frame: Frame): { rank: number; value: number } {
  const share = (x - PAD_PX) / (frame.width - 2 * PAD_PX || 1);
  const rank = Math.min(Math.max(Math.round(share * (count - 1)), 0), count - 1);
  const up = (frame.height - PAD_PX - y) / (frame.height - 2 * PAD_PX || 1);
  return { rank, value: frame.low + up * (frame.high - frame.low) };
}
