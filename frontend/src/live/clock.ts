import { useEffect, useRef } from "react";

import { onEveryFrame, wake } from "./loop";
import { live } from "./socket";

/** The engine's time now, in s: that of the newest frame, and what has passed since. */
export const engineNow = () =>
  live.heads ? live.heads.time + (performance.now() - live.arrived) / 1000 : null;

/** Text that is written anew with every frame, past React: for counting seconds. */
export function useLiveText<E extends HTMLElement>(text: (now: number) => string) {
  const element = useRef<E>(null);
  useEffect(() => {
    const stop = onEveryFrame(() => {
      const now = engineNow();
      const words = now === null ? "" : text(now);
      if (element.current && element.current.textContent !== words) element.current.textContent = words;
    });
    wake();
    return stop;
  });
  return element;
}
