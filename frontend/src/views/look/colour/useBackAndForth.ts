import { useEffect, useRef } from "react";

const THERE_S = 4;
const EVERY_MS = 40;

/** While it plays, a share goes from 0 to 1 and back, evenly. */
export function useBackAndForth(plays: boolean, share: number, onShare: (share: number) => void) {
  const now = useRef(share);
  useEffect(() => {
    now.current = share;
  }, [share]);
  useEffect(() => {
    if (!plays) return;
    let way = now.current < 1 ? 1 : -1;
    let last = performance.now();
    const timer = window.setInterval(() => {
      const at = performance.now();
      let next = now.current + (way * (at - last)) / 1000 / THERE_S;
      last = at;
      if (next >= 1 || next <= 0) {
        next = Math.min(Math.max(next, 0), 1);
        way = -way;
      }
      now.current = next;
      onShare(next);
    }, EVERY_MS);
    return () => clearInterval(timer);
  }, [plays, onShare]);
}
