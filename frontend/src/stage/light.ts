/** Light on the picture of the stage, added to its pixels. Pure; pixels of the picture, drives 0…255. */
import type { Point } from "./geometry";

/** A beam from its lens to where it ends. lens, half: half its width at both ends. */
export interface Beam {
  from: Point;
  to: Point;
  lens: number;
  half: number;
  drives: readonly [number, number, number];
}

/** How bright it is at the lens and at its end, as a share of its drives. */
const [NEAR, FAR] = [1, 0.14];

/** The part of low…high in which `at + step · x` is not negative. */
function kept(span: [number, number], at: number, step: number) {
  if (step > 0) span[0] = Math.max(span[0], -at / step);
  else if (step < 0) span[1] = Math.min(span[1], -at / step);
  else if (at < 0) span[1] = -1;
}

/** Add a beam to RGBA pixels (height rows of width): brightest along its middle, fading to its edges and its end. */
export function addBeam(pixels: Uint8ClampedArray, width: number, height: number, beam: Beam) {
  const { from, to, lens, half, drives } = beam;
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  if (length < 1) return;
  const [alongX, alongY] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const [acrossX, acrossY] = [-alongY, alongX];
  const wider = (half - lens) / length;
  const fade = (NEAR - FAR) / length;
  const reach = Math.max(lens, half);
  const first = Math.max(Math.floor(Math.min(from.y, to.y) - reach), 0);
  const last = Math.min(Math.ceil(Math.max(from.y, to.y) + reach), height - 1);
  for (let y = first; y <= last; y++) {
    const dy = y + 0.5 - from.y;
    const dx = 0.5 - from.x;
    const along = dx * alongX + dy * alongY; // at x = 0, and so the others
    const across = dx * acrossX + dy * acrossY;
    const wide = lens + wider * along;
    const span: [number, number] = [0, width - 1];
    kept(span, along, alongX);
    kept(span, length - along, -alongX);
    kept(span, wide - across, wider * alongX - acrossX);
    kept(span, wide + across, wider * alongX + acrossX);
    const end = Math.floor(span[1]);
    for (let x = Math.ceil(span[0]); x <= end; x++) {
      const a = along + alongX * x;
      const off = (across + acrossX * x) / (lens + wider * a);
      const level = (NEAR - fade * a) * (1 - off * off);
      const at = 4 * (y * width + x);
      pixels[at]! += drives[0] * level;
      pixels[at + 1]! += drives[1] * level;
      pixels[at + 2]! += drives[2] * level;
    }
  }
}
