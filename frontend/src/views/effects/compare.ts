import { useEffect, useMemo, useState } from "react";
import { useQuery } from "@tanstack/react-query";

import { api, take, type Schemas } from "../../api/client";
import { usesKey } from "../../frame/shortcuts";
import type { Editor } from "./useEditor";

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
  function swap() {
    if (!held || !editor) return;
    const before = editor.effect.document;
    void editor.commit({ operation: "replace", path: "", value: held.document });
    setHeld({ id: "state", name: "what was A", document: before });
  }
  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      if (event.key.toLowerCase() !== "x" || event.ctrlKey || event.metaKey || event.altKey) return;
      if (usesKey(document.activeElement, event.key) || document.querySelector("[role=dialog]")) return;
      event.preventDefault();
      swap();
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
  return { held, hold: setHeld, weave: held ? weave : undefined, swap };
}
