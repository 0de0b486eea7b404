import { useCallback, useState } from "react";

/** How large an element is, in pixels, now and whenever that changes; the function goes to its `ref`. */
export function useSize() {
  const [size, setSize] = useState({ width: 0, height: 0 });
  const measure = useCallback((element: Element | null) => {
    if (!element) return;
    const seen = new ResizeObserver(() =>
      setSize({ width: element.clientWidth, height: element.clientHeight }),
    );
    seen.observe(element);
    return () => seen.disconnect();
  }, []);
  return [size, measure] as const;
}
