import { useEffect, useRef } from "react";

import { onEveryFrame, wake } from "./loop";
import { live } from "./socket";

/** The engine's time now, in s: that of the newest frame, and what has passed since. */
export const engineNow = () =>
  live.heads ? live.heads.time + (performance.now() - live.arrived) / 1000 : null;

/** Something done to an element with every frame, past React; now: the engine's time. */
export function useEveryFrame<E extends HTMLElement>(does: (element: E, now: number) => void) {
  const element = useRef<E>(null);
  useEffect(() => {
    const stop = onEveryFrame(() => {
      const now = engineNow();
      if (element.current && now !== null) does(element.current, now);
    });
    wake();
    return stop;
  });
  return element;
}

/** Text that is written anew with every frame: for counting seconds. */
export function useLiveText<E extends HTMLElement>(text: (now: number) => string) {
  return useEveryFrame<E>((element, now) => {
    const words = text(now);
    if (element.textContent !== words) element.textContent = words;
  });
}
