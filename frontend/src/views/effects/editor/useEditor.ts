import { useList } from "../../../api/cues";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useRef, useState } from "react";
import { flushSync } from "react-dom";

import { api, Refused, take, type Schemas } from "../../../api/client";
import { ownEdit, refresh, tell, useDraft, useEffectView, useShow, useWeave } from "../../../api/queries";
import { usePages } from "../../../api/pages";
import { useDesk } from "../../../state";
import { columnsFor } from "../weave/pixels";
import { headsSeen } from "../weave/seen";

type Effect = Schemas["EffectView"];
type Weave = Schemas["WeaveView"];
export type Change = Omit<Schemas["EffectChange"], "preview" | "weave">;

/** The ways to change the effect; the same object while the effect and how it is woven stay. */
export interface Hands {
  /** Shown on stage and here at once, not kept. */
  preview: (change: Change) => void;
  /** Kept: one undo step. */
  commit: (change: Change) => Promise<void>;
}

export interface Editor extends Hands {
  hands: Hands;
  effect: Effect;
  weave: Weave | undefined;
  /** It was deleted while it was open here. */
  gone: boolean;
  heads: string[];
  /** How the weave was asked for. */
  ask: Schemas["WeaveAsk"];
}

/** Counts the changes of this page: a preview that comes in late must not overtake what was kept after it. */
let step = 0;
const nextStep = () => (step = Math.max(step + 1, Date.now())); // rises over all windows of a browser

const NO_HEADS: string[] = [];
const NO_GROUPS: Schemas["ShowView"]["groups"] = [];

/** Heads that the effect in the editor can be seen on: those it runs on, the selection, groups. */
export function useKnownHeads() {
  const key = useDesk((state) => state.effect?.key);
  const selection = useDesk((state) => state.selection);
  const { data: draft } = useDraft();
  const { data: pages } = usePages();
  const { data: groups } = useShow((show) => show.groups);
  const inDraft = draft?.effects.find((one) => key === `draft:${one.id}`);
  const [, list, thread] = /^list:(\d+):(\d+)/.exec(key ?? "") ?? [];
  const { data: cues } = useList(list ? Number(list) : null);
  const inCues = cues?.threads.find((one) => one.thread === Number(thread));
  const control = pages?.pages.flatMap((page) => page.controls).find((one) => one.key === key);
  return {
    own: inDraft?.heads ?? control?.heads ?? inCues?.heads ?? NO_HEADS,
    selection,
    groups: groups ?? NO_GROUPS,
  };
}

/** The effect under the hands: its document, sentence and weave, and the ways to change them. */
export function useEditor(id: number, start: number): Editor | null {
  const client = useQueryClient();
  const known = useKnownHeads();
  const seen = useDesk((state) => state.seen);
  const attribute = useDesk((state) => state.wovenBy);
  const { heads, phantom } = headsSeen(seen, known);
  const { data: kept, error } = useEffectView(id);
  const [shown, setShown] = useState<{ effect: Effect; weave: Weave | null } | null>(null);
  const ask = useMemo(
    () => ({
      heads,
      columns: columnsFor(heads.length),
      attribute,
      phantom,
      start,
      notices: true,
    }),
    [heads, phantom, attribute, start],
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
          body: { ...change, preview, step: nextStep(), weave: ask },
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
          if (commits.current !== begun) continue; // it is overtaken
          flushSync(() => setShown({ effect, weave: weave ?? null })); // seen now, not after what waits
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
        const { effect, weave } = await ownEdit(() => ask_(change, false));
        flushSync(() => setShown({ effect, weave: weave ?? null }));
        client.setQueryData(["weave", id, effect.document, ask], weave);
        client.setQueryData(["effect", id], effect);
        client.setQueryData<Schemas["EffectsView"]>(["effects"], (all) =>
          all?.effects.some((one) => one.id === id)
            ? { effects: all.effects.map((one) => (one.id === id ? effect : one)) }
            : all,
        );
      } catch (error) {
        tell(error);
        refresh();
      }
      setShown(null);
    },
    [ask_, ask, client, id],
  );
  const hands = useMemo(
    () => ({ preview: (change: Change) => void preview(change), commit }),
    [preview, commit],
  );
  const effect = shown?.effect.id === id ? shown.effect : kept;
  const weave = (shown?.effect.id === id ? shown.weave : woven) ?? woven;
  const gone = error instanceof Refused && error.status === 404;
  return useMemo(
    () => (effect ? { effect, weave, gone, heads, ask, hands, ...hands } : null),
    [effect, weave, gone, heads, ask, hands],
  );
}
