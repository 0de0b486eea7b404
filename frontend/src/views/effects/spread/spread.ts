/** Geometry of the spread: heads by lane on a circle or a line. Pure. */

export interface XY {
  x: number;
  y: number;
}

/** A point on the circle for a phase in cycles: 0 on top, later lanes clockwise. */
export function onCircle(phase: number, radius: number, centre: XY): XY {
  const angle = phase * 2 * Math.PI;
  return { x: centre.x + radius * Math.sin(angle), y: centre.y - radius * Math.cos(angle) };
}

/** The phase 0…1 of a point, seen from the centre. */
export function phaseAt(point: XY, centre: XY): number {
  const turn = Math.atan2(point.x - centre.x, centre.y - point.y) / (2 * Math.PI);
  return (turn + 1) % 1;
}

/** A drag round the circle: phases that follow each other without a jump at the top. */
export function follow(before: number, now: number): number {
  return before + ((((now - before) % 1) + 1.5) % 1) - 0.5;
}

/** Degrees of spread that put a lane with this share of it at a phase (cycles), in steps of 5°, within ±720°. */
export function spreadFor(phase: number, share: number): number {
  if (Math.abs(share) < 1e-9) return 0;
  const degrees = Math.round((phase * 360) / share / 5) * 5;
  return Math.min(Math.max(degrees, -720), 720);
}

/** A head's own offset, in degrees of phase in steps of 5, −180…180, for where it was dragged and where its lane is. */
export function ownOffset(phase: number, lanePhase: number): number {
  const turn = ((((phase - lanePhase) % 1) + 1.5) % 1) - 0.5;
  return Math.round((turn * 360) / 5) * 5 || 0;
}

export interface Lane {
  lane: number;
  heads: string[];
  offset: number;
  share: number;
}

/** Lanes in their order, with their heads. */
export function lanesOf(
  heads: readonly string[],
  lanes: readonly number[],
  shares: readonly number[],
  whole: number,
): Lane[] {
  const found = new Map<number, string[]>();
  heads.forEach((head, n) => found.set(lanes[n]!, [...(found.get(lanes[n]!) ?? []), head]));
  return [...found]
    .sort(([a], [b]) => a - b)
    .map(([lane, own]) => ({
      lane,
      heads: own,
      share: shares[lane] ?? 0,
      offset: (shares[lane] ?? 0) * whole,
    }));
}

/** The handover (0.01…1) that lets a lane begin at a place on the line of turns. place: turns. */
export const handoverFor = (place: number, lane: number) =>
  lane < 1 ? 1 : Math.min(Math.max(Math.round((place / lane) * 100) / 100, 0.01), 1);

/** Heads of a lane in few words. */
export const headsText = (heads: readonly string[], most = 6) =>
  heads.length > most ? `${heads.slice(0, most - 1).join(" ")} … ${heads.at(-1)}` : heads.join(" ");
