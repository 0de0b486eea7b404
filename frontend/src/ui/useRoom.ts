import { useEffect, type RefObject } from "react";

/** Look at a box that scrolls, now and whenever its size, its content or its place changes. */
export function useRoom(box: RefObject<HTMLElement | null>, look: (content: HTMLElement) => void) {
  useEffect(() => {
    const content = box.current!;
    const again = () => look(content);
    again();
    const sizes = new ResizeObserver(again);
    sizes.observe(content);
    const changes = new MutationObserver(again);
    changes.observe(content, { childList: true, subtree: true, characterData: true });
    content.addEventListener("scroll", again, { passive: true });
    return () => {
      sizes.disconnect();
      changes.disconnect();
      content.removeEventListener("scroll", again);
    };
  }, [box, look]);
}
