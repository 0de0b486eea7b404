import { useEffect, useState } from "react";

import { HEAD } from "../../api/frames";
import type { Rig } from "../../api/rig";
import { HEAD_BYTES } from "../../live/frame";
import { live } from "../../live/socket";

const LOOK_EVERY_MS = 250;
/** A light that was seen so lately is not dark: it may be between two beats. */
const SEEN_MS = 2000;

/** Which of the heads have been dark for a while. */
export function useDark(rig: Rig, heads: string[]): string[] {
  const [dark, setDark] = useState<string[]>([]);
  useEffect(() => {
    const chosen = new Set(heads);
    const numbers = rig.heads.flatMap((head, n) => (chosen.has(head.key) ? [[head.key, n] as const] : []));
    const seen = new Map<string, number>();
    const begun = performance.now();
    const timer = window.setInterval(() => {
      const frame = live.heads?.rig === rig.number ? live.heads : null;
      const now = performance.now();
      for (const [key, n] of frame ? numbers : [])
        if (frame!.heads.getUint8(n * HEAD_BYTES + HEAD.level)) seen.set(key, now);
      if (!frame || now - begun < SEEN_MS) return;
      const found = numbers.flatMap(([key]) => (now - (seen.get(key) ?? -Infinity) > SEEN_MS ? [key] : []));
      setDark((before) => (before.join() === found.join() ? before : found));
    }, LOOK_EVERY_MS);
    return () => {
      clearInterval(timer);
      setDark([]);
    };
  }, [rig, heads]);
  return dark;
}
