import { act, createElement, type ReactNode } from "react";
import { createRoot } from "react-dom/client";

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

/** For tests: a hook in a component of its own. `now` is what it gave last, `times` how often it was rendered. */
export function rendered<T>(hook: () => T, around: (inner: ReactNode) => ReactNode = (inner) => inner) {
  const root = createRoot(document.createElement("div"));
  const seen = { now: undefined as T, times: 0, end: () => act(() => root.unmount()) };
  function Probe() {
    seen.now = hook();
    seen.times += 1;
    return null;
  }
  act(() => root.render(around(createElement(Probe))));
  return seen;
}
