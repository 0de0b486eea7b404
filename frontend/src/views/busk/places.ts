/** Places on a page, counted from 1, for faders and for buttons apart. */

export const PLACES = 12;

interface Placed {
  place: number;
  mode: string;
}
export type Kind = "fader" | "button";

/** Whether a control is a fader or a button. */
export const kindOf = (control: Placed): Kind => (control.mode === "fader" ? "fader" : "button");

/** Places that nothing is on. */
export function freePlaces(controls: readonly Placed[], kind: Kind): number[] {
  const taken = new Set(
    controls.filter((control) => kindOf(control) === kind).map((control) => control.place),
  );
  return Array.from({ length: PLACES }, (_, n) => n + 1).filter((place) => !taken.has(place));
}
