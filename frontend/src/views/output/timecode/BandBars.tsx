import styled from "styled-components";

const Bars = styled.div`
  display: flex;
  align-items: end;
  gap: 2px;
  height: 40px;
  width: 256px;
  border-bottom: 1px solid var(--edge);
  span {
    flex: 1;
    background: var(--bone);
    height: calc(var(--level) * 100%);
  }
`;
const COUNT = 32;

/** Bands of a sound, from low to high. */
export function BandBars({ bands }: { bands: number[] }) {
  return (
    <Bars role="img" aria-label={bands.length ? "Bands of the sound, from low to high" : "No sound"}>
      {Array.from({ length: COUNT }, (_, n) => (
        <span key={n} style={{ "--level": bands[n] ?? 0 } as React.CSSProperties} />
      ))}
    </Bars>
  );
}
