import { useEffect, useRef, useState } from "react";

import { kindEdits, type KindDocument, type KindSheet } from "../../../api/kinds";

export interface Costs {
  document: KindDocument;
  lines: string[];
}

/** A kind as it is edited: every change is seen at once and kept in its order; what it would take from the show is asked first. */
export function useKindEdit(
  sheet: KindSheet | undefined,
  seen: { at: number; isNow: boolean },
  onName: (name: string) => void,
) {
  const [held, setHeld] = useState<KindDocument | null>(null);
  const [asked, setAsked] = useState<Costs | null>(null);
  const queue = useRef(Promise.resolve());
  const waiting = useRef(0);
  useEffect(() => {
    if (seen.isNow && !waiting.current) setHeld(null); // what the server has now is all that was changed
  }, [seen.at, seen.isNow]);
  async function keep(id: number, now: KindDocument, name: string) {
    const done = await kindEdits.change(id, now, false);
    if (done && now.name !== name) onName(now.name);
    return done !== null;
  }
  async function change(now: KindDocument) {
    if (!sheet || sheet.id === null) return;
    const seen = sheet.numbers.length ? await kindEdits.change(sheet.id, now, true) : { lost: [] };
    if (seen?.lost.length) setAsked({ document: now, lines: seen.lost });
    if (!seen || seen.lost.length || !(await keep(sheet.id, now, sheet.document.name))) setHeld(null);
  }
  function put(now: KindDocument) {
    if (!sheet || sheet.id === null) return;
    setHeld(now);
    waiting.current += 1;
    queue.current = queue.current.then(() => change(now)).finally(() => (waiting.current -= 1));
  }
  return {
    document: held ?? sheet?.document,
    put,
    asked,
    leave: () => setAsked(null),
    doAsked: () => void (asked && sheet?.id != null && keep(sheet.id, asked.document, sheet.document.name)),
  };
}
