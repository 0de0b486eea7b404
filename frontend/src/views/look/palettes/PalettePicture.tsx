import styled from "styled-components";

import type { Palette } from "../../../api/palettes";
import { GoboPicture } from "../../../ui/GoboPicture";

const Box = styled.span`
  display: grid;
  place-items: center;
  width: 100%;
  height: 30px;
  font-size: 13px;
  overflow: hidden;
  span {
    width: 100%;
    height: 100%;
  }
  svg {
    width: 60px;
    height: 30px;
    stroke: currentColor;
    stroke-width: 2;
    fill: none;
  }
`;
const X = 27;
const Y = 28;
/** Widest cone of a zoom that is drawn, in degrees. */
const WIDEST = 60;

/** How a palette looks: its colours side by side, its beams, its gobo or how wide it is open. */
export function PalettePicture({ picture }: { picture: Palette["picture"] }) {
  const { colours, beams, gobo, zoom, level, words } = picture;
  if (colours.length) {
    const stripes = colours.flatMap((colour, n) => [
      `${colour} ${(n / colours.length) * 100}%`,
      `${colour} ${((n + 1) / colours.length) * 100}%`,
    ]);
    return (
      <Box>
        <span style={{ background: `linear-gradient(90deg, ${stripes.join(", ")})` }} />
      </Box>
    );
  }
  if (beams.length)
    return (
      <Box>
        <svg viewBox="-30 0 60 30">
          {beams.map(({ start, end, top, bottom }, n) => (
            <line key={n} x1={start * X} y1={top * Y + 1} x2={end * X} y2={bottom * Y + 1} />
          ))}
        </svg>
      </Box>
    );
  if (gobo !== null)
    return (
      <Box>
        <GoboPicture slot={gobo} size={26} />
      </Box>
    );
  if (zoom !== null) {
    const half = (Math.min(zoom, WIDEST) / WIDEST) * X;
    return (
      <Box>
        <svg viewBox="-30 0 60 30">
          <path d={`M0 2 L${-half} 28 L${half} 28 Z`} />
        </svg>
      </Box>
    );
  }
  return <Box>{level !== null ? `${Math.round(level)} %` : words}</Box>;
}
