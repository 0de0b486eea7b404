import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useRef, useState } from "react";

import { api, take, type Schemas } from "../../api/client";
import { refresh, tell, useDraft, useEffectView, useWeave } from "../../api/queries";
import { useDesk } from "../../state";
import { columnsFor } from "./pixels";

type Effect = Schemas["EffectView"];
type Weave = Schemas["WeaveView"];
export type Change = Omit<Schemas["EffectChange"], "preview" | "weave">;

export interface Editor {
  effect: Effect;
  weave: Weave | undefined;
  heads: string[];
  /** Shown on stage and here at once, not kept. */
  preview: (change: Change) => void;
  /** Kept: one undo step. */
  commit: (change: Change) => Promise<void>;
}

/** Heads that the effect in the editor is seen on: its own in the draft, else the selection. */
function useHeads(): string[] {
  const { effect, selection } = useDesk();
  const { data: draft } = useDraft();
  const own = draft?.effects.find((one) => effect?.key === `draft:${one.id}`);
  return own?.heads ?? selection;
}

/** The effect under the hands: its document, sentence and weave, and the ways to change them. */
export function useEditor(id: number, start: number): Editor | null {
  const client = useQueryClient();
  const heads = useHeads();
  const { data: kept } = useEffectView(id);
  const [shown, setShown] = useState<{ effect: Effect; weave: Weave | null } | null>(null);
  const ask = useMemo(
    () => ({
      heads,
      columns: columnsFor(heads.length),
      attribute: "look",
      phantom: 10,
      start,
      notices: true,
    }),
    [heads, start],
  );
  const { data: woven } = useWeave(id, kept?.document, ask);
  const busy = useRef(false);
  const commits = useRef(0);
  const waiting = useRef<Change | null>(null);

  const ask_ = useCallback(
    (change: Change, preview: boolean) =>
      take(
        api.POST("/api/effects/{effect_id}/change", {
          params: { path: { effect_id: id } },
          body: { ...change, preview, weave: ask },
        }),
      ),
    [id, ask],
  );
  const preview = useCallback(
    async function previewOne(change: Change) {
      waiting.current = change;
      if (busy.current) return;
      busy.current = true;
      try {
        await Promise.resolve(); // a key moves and lets go at once: then there is nothing to preview
        while (waiting.current) {
          const next = waiting.current;
          waiting.current = null;
          const begun = commits.current;
          const { effect, weave } = await ask_(next, true);
          if (commits.current === begun) setShown({ effect, weave: weave ?? null }); // else it is overtaken
        }
      } catch (error) {
        tell(error);
      } finally {
        busy.current = false;
      }
    },
    [ask_],
  );
  const commit = useCallback(
    async (change: Change) => {
      waiting.current = null;
      commits.current += 1;
      try {
        const { effect, weave } = await ask_(change, false);
        client.setQueryData(["effect", id], effect);
        client.setQueryData(["weave", id, effect.document, ask], weave);
      } catch (error) {
        tell(error);
      }
      setShown(null);
      refresh();
    },
    [ask_, ask, client, id],
  );
  const effect = shown?.effect.id === id ? shown.effect : kept;
  if (!effect) return null;
  return {
    effect,
    weave: (shown?.effect.id === id ? shown.weave : woven) ?? woven,
    heads,
    preview: (change) => void preview(change),
    commit,
  };
}
