import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useQuery } from "@tanstack/react-query";

import { api, take, type Schemas } from "../../../api/client";
import { usesKey } from "../../../frame/shortcuts";
import type { Editor } from "../editor/useEditor";

/** What is held beside the effect (B): another effect, or an earlier state of this one. */
export interface Held {
  id: string;
  name: string;
  document: Record<string, unknown>;
}

/** Comparing: what is held, its weave, and the swap that puts it on stage, also by the key X. */
export function useCompare(editor: Editor | null) {
  const [held, setHeld] = useState<Held | null>(null);
  const ask = useMemo(() => (editor ? { ...editor.ask, notices: false } : null), [editor?.ask]); // eslint-disable-line react-hooks/exhaustive-deps -- the rest of the editor changes more often
  const { data: weave } = useQuery({
    queryKey: ["weave", "held", held?.document, ask],
    enabled: held !== null && ask !== null,
    queryFn: (): Promise<Schemas["WeaveView"]> =>
      take(api.POST("/api/effects/weave", { body: { document: held!.document, weave: ask! } })),
    placeholderData: (before) => before,
  });
  const now = useRef({ held, editor });
  useEffect(() => {
    now.current = { held, editor };
  });
  const swap = useCallback(() => {
    const { held: other, editor: current } = now.current;
    if (!other || !current) return;
    const before = current.effect.document;
    void current.commit({ operation: "replace", path: "", value: other.document });
    setHeld({ id: "state", name: "what was A", document: before });
  }, []);
  const hold = useCallback((what: Held | "state" | null) => {
    const { editor: current } = now.current;
    if (what !== "state") setHeld(what);
    else if (current) setHeld({ id: "state", name: "held state", document: current.effect.document });
  }, []);
  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      if (event.key.toLowerCase() !== "x" || event.ctrlKey || event.metaKey || event.altKey) return;
      if (usesKey(document.activeElement, event.key) || document.querySelector("[role=dialog]")) return;
      event.preventDefault();
      swap();
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [swap]);
  return { held, hold, weave: held ? weave : undefined, swap };
}
