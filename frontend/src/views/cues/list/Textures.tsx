import styled from "styled-components";

const Hidden = styled.svg`
  position: absolute;
  width: 0;
  height: 0;
`;

/** The textures that tell families apart: solid is level, strokes position, hatched colour, open beam. */
export function Textures() {
  return (
    <Hidden aria-hidden="true">
      <defs>
        <pattern id="texture-position" width="4" height="8" patternUnits="userSpaceOnUse">
          <rect width="2" height="8" fill="var(--bone)" />
        </pattern>
        <pattern
          id="texture-colour"
          width="5"
          height="5"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="2" height="5" fill="var(--bone)" />
        </pattern>
      </defs>
    </Hidden>
  );
}
