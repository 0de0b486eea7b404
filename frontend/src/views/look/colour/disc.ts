/** The disc of hue and saturation: 0° to the right, counter-clockwise; white in the middle. */
export interface Place {
  x: number;
  y: number;
}

const EDGE = 360;

/** Where a hue (degrees) and a saturation (0 to 100) are on a disc of this radius, from its middle. */
export function placeOf(hue: number, saturation: number, radius: number): Place {
  const angle = (hue * Math.PI) / 180;
  const away = (Math.min(Math.max(saturation, 0), 100) / 100) * radius;
  return { x: away * Math.cos(angle), y: -away * Math.sin(angle) };
}

/** Hue and saturation of a place; outside the disc: at its edge. */
export function pickedAt({ x, y }: Place, radius: number): { hue: number; saturation: number } {
  const hue = ((Math.atan2(-y, x) * 180) / Math.PI + EDGE) % EDGE;
  return { hue, saturation: Math.min(Math.hypot(x, y) / radius, 1) * 100 };
}

/** Hue and saturation of light as it is seen (each 0 to 255), however bright; null: it is dark. */
export function hueOf(red: number, green: number, blue: number): { hue: number; saturation: number } | null {
  const most = Math.max(red, green, blue);
  const chroma = most - Math.min(red, green, blue);
  if (most < 4) return null;
  if (!chroma) return { hue: 0, saturation: 0 };
  const sextant =
    most === red
      ? (green - blue) / chroma
      : most === green
        ? 2 + (blue - red) / chroma
        : 4 + (red - green) / chroma;
  return { hue: (sextant * 60 + EDGE) % EDGE, saturation: (chroma / most) * 100 };
}

/** Dots that lie on one another become one, with how many they are. */
export function gathered(places: Place[], near: number): { place: Place; count: number }[] {
  const found: { place: Place; count: number }[] = [];
  for (const place of places) {
    const beside = found.find((one) => Math.hypot(one.place.x - place.x, one.place.y - place.y) < near);
    if (beside) beside.count += 1;
    else found.push({ place, count: 1 });
  }
  return found;
}

/** Drives 0 to 1 as `#rrggbb`. */
export const hexOf = (drives: number[]) =>
  `#${drives
    .map((one) =>
      Math.round(Math.min(Math.max(one, 0), 1) * 255)
        .toString(16)
        .padStart(2, "0"),
    )
    .join("")}`;
