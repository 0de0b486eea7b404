/** How a hand has changed depth and speed live; empty: it has not. */
export function liveWords(depth: number, speed: number): string {
  const words = [];
  if (depth !== 1) words.push(`depth ${Math.round(depth * 100)} %`);
  if (speed !== 1) words.push(`speed × ${Math.round(speed * 100) / 100}`);
  return words.length ? ` · live: ${words.join(", ")}` : "";
}
