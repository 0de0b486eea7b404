import { useEffect, useRef, type RefObject } from "react";

/** Moves of a pointer over an element as they come in, where the browser tells them; else once in a frame of the screen. */
export function useMoves(element: RefObject<HTMLElement | null>, onMove: (event: PointerEvent) => void) {
  const newest = useRef(onMove);
  useEffect(() => {
    newest.current = onMove;
  });
  useEffect(() => {
    const moved = element.current!;
    const name = "onpointerrawupdate" in window ? "pointerrawupdate" : "pointermove";
    const move = (event: Event) => newest.current(event as PointerEvent);
    moved.addEventListener(name, move);
    return () => moved.removeEventListener(name, move);
  }, [element]);
}
