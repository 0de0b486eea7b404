import type { ReactNode } from "react";

const ring = (radius: number) => (
  <circle key={radius} r={radius} fill="none" stroke="currentColor" strokeWidth="1.6" />
);
const around = (count: number, of: (angle: number) => ReactNode) =>
  Array.from({ length: count }, (_, n) => of((n / count) * 360));

/** What is in the slots of a gobo wheel, by name. Light passes where it is drawn. */
export const GOBOS: Record<string, ReactNode> = {
  open: <circle r="8" fill="currentColor" />,
  dots: around(6, (angle) => (
    <circle key={angle} cx="5.2" r="1.7" fill="currentColor" transform={`rotate(${angle})`} />
  )),
  bars: [-5, 0, 5].map((y) => (
    <rect key={y} x="-7" y={y - 1.2} width="14" height="2.4" fill="currentColor" />
  )),
  rings: [3, 7].map(ring),
  leaves: around(5, (angle) => (
    <ellipse key={angle} cx="5" rx="3" ry="1.4" fill="currentColor" transform={`rotate(${angle})`} />
  )),
  spiral: (
    <path
      d="M0 0 C3 -3 6 0 4 3 C1 8 -7 5 -6 -2 C-5 -8 3 -9 7 -5"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.6"
    />
  ),
  stars: around(5, (angle) => (
    <path key={angle} d="M0 -7.5 L1.4 -4.6 L-1.4 -4.6 Z" fill="currentColor" transform={`rotate(${angle})`} />
  )),
  split: [-1, 1].map((side) => (
    <path
      key={side}
      d={`M${side * 1.4} -7.6 A8 8 0 0 ${side > 0 ? 1 : 0} ${side * 1.4} 7.6 Z`}
      fill="currentColor"
    />
  )),
};
const NAMES = Object.keys(GOBOS);

interface Props {
  /** What is in the slot: one of our own by its name, or the hash of a picture that was taken in. */
  picture?: string;
  /** Without a picture, what is usual in the slot of this number. */
  slot?: number;
  size?: number;
}

/** The picture of a slot of a gobo wheel. */
export function GoboPicture({ picture, slot = 0, size = 22 }: Props) {
  const own = picture ?? NAMES[slot] ?? "open";
  return (
    <svg viewBox="-10 -10 20 20" width={size} height={size} aria-hidden="true">
      {own.length === 64 && (
        <image
          href={`/api/kinds/pictures/${own}.png`}
          x="-8.8"
          y="-8.8"
          width="17.6"
          height="17.6"
          clipPath="circle(8.8px)"
        />
      )}
      <circle r="9.2" fill="none" stroke="currentColor" strokeWidth="0.8" />
      {GOBOS[own]}
    </svg>
  );
}
