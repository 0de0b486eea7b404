/** The plan on which lights are aimed: metres to pixels and back, alike in both directions. Pure. */

export interface XY {
  x: number;
  y: number;
}
export interface Plan {
  scale: number;
  left: number;
  top: number;
}
const MARGIN_PX = 18;
/** How far before the stage the plan goes, in metres: the first rows. */
const BEFORE_M = 8;
const ROUND_M = 1.5;

/** A plan that shows all places, and the room before them. y goes upstage, which is up on it. */
export function planOf(places: readonly XY[], width: number, height: number): Plan {
  const xs = places.map((place) => Math.abs(place.x));
  const ys = places.map((place) => place.y);
  const half = Math.max(...xs, 3) + ROUND_M;
  const low = Math.min(...ys, 0) - BEFORE_M;
  const high = Math.max(...ys, 2) + ROUND_M;
  const scale = Math.min((width - 2 * MARGIN_PX) / (2 * half), (height - 2 * MARGIN_PX) / (high - low));
  return {
    scale,
    left: width / 2,
    top: height / 2 + ((low + high) / 2) * scale,
  };
}

export const toPixel = (plan: Plan, at: XY): XY => ({
  x: plan.left + at.x * plan.scale,
  y: plan.top - at.y * plan.scale,
});

/** Metres of a point on the plan, to the centimetre. */
export const toStage = (plan: Plan, at: XY): XY => ({
  x: Math.round(((at.x - plan.left) / plan.scale) * 100) / 100,
  y: Math.round(((plan.top - at.y) / plan.scale) * 100) / 100,
});
