import styled, { keyframes } from "styled-components";

/** Frames of a strip, one beside another: as the server draws them. */
const FRAMES = 24;
const run = keyframes`
  from { background-position-x: 0; }
  to { background-position-x: 100%; }
`;
const Picture = styled.i`
  display: block;
  background-size: ${FRAMES * 100}% 100%;
  background-color: var(--stage-ground);
  image-rendering: pixelated;
  animation: ${run} var(--strip-s, 3s) steps(${FRAMES}, jump-none) infinite;
  @media (prefers-reduced-motion: reduce) {
    animation: none;
    background-position-x: calc(100% * 7 / ${FRAMES - 1});
  }
`;

/** A moving thumbnail: light, drawn by the code that draws it on stage. */
export function Strip({ src, seconds, className }: { src: string; seconds?: number; className?: string }) {
  const style = {
    backgroundImage: `url("${src}")`,
    ...(seconds ? { "--strip-s": `${seconds}s` } : {}),
  } as React.CSSProperties;
  return <Picture aria-hidden="true" className={className} style={style} />;
}
