import { useRef, useState } from "react";

const LET_GO_MS = 700;

/** A value that is told, and for a moment what a hand has set it to: what comes back later must not make it jump. */
export function useHeld(told: number, send: (value: number) => void, letGoMs = LET_GO_MS) {
  const [held, setHeld] = useState<number | null>(null);
  const timer = useRef(0);
  function move(value: number) {
    setHeld(value);
    send(value);
    clearTimeout(timer.current);
    timer.current = window.setTimeout(() => setHeld(null), letGoMs);
  }
  return [held ?? told, move] as const;
}
