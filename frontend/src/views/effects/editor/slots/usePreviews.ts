import { useEffect, useRef } from "react";

import type { Hands } from "../useEditor";

const KEEP_AFTER_MS = 500;

interface Previews {
  /** A value that the user is at; `onStage`: to be seen on stage before it is kept. */
  shown: (value: number, onStage: boolean) => void;
  /** Keep the value that the user is at: one undo step. */
  keepLatest: () => void;
}

/** Values previewed while a control moves; kept when it is let go, when it rests, or when its panel closes. */
export function usePreviews(editor: Hands, path: string, scale: number, first: number): Previews {
  const latest = useRef(first);
  const kept = useRef(first);
  const timer = useRef(0);
  const held = useRef(false); // a pointer that is down ends the move when it is let go, however long it rests
  const edit = useRef(editor);
  useEffect(() => {
    edit.current = editor;
  });
  useEffect(() => {
    const press = () => (held.current = true);
    const release = () => (held.current = false);
    window.addEventListener("pointerdown", press, true);
    for (const end of ["pointerup", "pointercancel"]) window.addEventListener(end, release, true);
    return () => {
      window.removeEventListener("pointerdown", press, true);
      for (const end of ["pointerup", "pointercancel"]) window.removeEventListener(end, release, true);
    };
  }, []);
  const change = (value: number) => ({
    operation: "set" as const,
    path,
    value: Number((value / scale).toFixed(6)),
  });

  function keepLatest() {
    clearTimeout(timer.current);
    if (latest.current === kept.current) return;
    kept.current = latest.current;
    void edit.current.commit(change(latest.current));
  }
  function keepAtRest() {
    if (held.current) timer.current = window.setTimeout(keepAtRest, KEEP_AFTER_MS);
    else keepLatest();
  }
  function shown(value: number, onStage: boolean) {
    latest.current = value;
    clearTimeout(timer.current);
    if (!onStage) return;
    edit.current.preview(change(value));
    timer.current = window.setTimeout(keepAtRest, KEEP_AFTER_MS);
  }
  useEffect(
    () => () => keepLatest(),
    // only when the panel closes
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  );
  return { shown, keepLatest };
}
