/** Where things of the stage are on the picture. Pure; metres in, pixels out. */

export interface Point {
  x: number;
  y: number;
}
export interface Place {
  x: number;
  y: number;
  z: number;
}
export type Elevation = "front" | "plan";
export interface View {
  elevation: Elevation;
  scaleX: number;
  scaleY: number;
  left: number;
  bottom: number;
}

const WIDEST_PX = 120;
const MARGIN = { x: 26, top: 62, bottom: 14 };
/** A stage so low has its tools beside the picture. */
const LOW_PX = 110;
const TOOLS_PX = 350;
/** Of the height that is above all places at the most: where there is little, numbers lie over the light. */
const TOP_SHARE = 0.34;

/** A view that shows all places, with room for numbers above. The two directions are scaled apart, to fill
 * the room that there is. */
export function fit(places: readonly Place[], width: number, height: number, elevation: Elevation): View {
  const up = (place: Place) => (elevation === "front" ? place.z : place.y);
  const xs = places.map((place) => place.x);
  const ups = places.map(up);
  const lowX = Math.min(...xs, -1);
  const highX = Math.max(...xs, 1);
  const lowY = elevation === "front" ? 0 : Math.min(...ups, 0);
  const highY = Math.max(...ups, lowY + 1);
  const room = height < LOW_PX ? width - TOOLS_PX : width;
  const scaleX = (room - 2 * MARGIN.x) / (highX - lowX);
  const top = Math.min(MARGIN.top, height * TOP_SHARE);
  const scaleY = (height - top - MARGIN.bottom) / (highY - lowY);
  return {
    elevation,
    scaleX,
    scaleY,
    left: room / 2 - ((lowX + highX) / 2) * scaleX,
    bottom: height - MARGIN.bottom + lowY * scaleY,
  };
}

/** A place on the picture. */
export function project(view: View, place: Place): Point {
  const up = view.elevation === "front" ? place.z : place.y;
  return { x: view.left + place.x * view.scaleX, y: view.bottom - up * view.scaleY };
}

/** Where a beam ends, in metres: on the floor, or `reach` along its way. */
export function beamEnd(place: Place, direction: Place, reach: number): Place {
  const toFloor = direction.z < -0.02 ? -place.z / direction.z : Infinity;
  const length = Math.min(toFloor, reach);
  return {
    x: place.x + direction.x * length,
    y: place.y + direction.y * length,
    z: place.z + direction.z * length,
  };
}

/** Half the width of a beam at its end on the picture, for its full angle in degrees. */
export function beamHalf(view: View, place: Place, end: Place, angle: number): number {
  const length = Math.hypot(end.x - place.x, end.y - place.y, end.z - place.z);
  return Math.min(Math.tan((angle * Math.PI) / 360) * length * view.scaleY, WIDEST_PX);
}

/** Whether a point is in the box between two corners. */
export function inBox(point: Point, a: Point, b: Point): boolean {
  return (
    point.x >= Math.min(a.x, b.x) &&
    point.x <= Math.max(a.x, b.x) &&
    point.y >= Math.min(a.y, b.y) &&
    point.y <= Math.max(a.y, b.y)
  );
}
