import { useEffect, useMemo, useRef } from "react";

import type { Schemas } from "../../../api/client";
import { audition } from "../../../live/socket";
import { useDesk } from "../../../state";

const WAIT_MS = 250;

/** Seeing an effect on the selected heads without applying it: begins when the pointer or focus rests on it. */
export function useAudition(effect: Schemas["EffectView"]) {
  const timer = useRef(0);
  const shown = useRef(false);
  const latest = useRef(effect);
  useEffect(() => {
    latest.current = effect;
  });
  const ways = useMemo(() => {
    const end = () => {
      clearTimeout(timer.current);
      if (shown.current) audition(null);
      shown.current = false;
    };
    const begin = () => {
      clearTimeout(timer.current);
      timer.current = window.setTimeout(() => {
        const { selection, auditions } = useDesk.getState();
        if (!auditions || !selection.length) return;
        shown.current = true;
        audition({ effect_id: latest.current.id, document: latest.current.document, heads: selection });
      }, WAIT_MS);
    };
    return { begin, end };
  }, []);
  useEffect(() => ways.end, [ways]);
  return ways;
}
