import { useEffect, useRef } from "react";

import type { Schemas } from "../../../api/client";
import { useFanHand } from "../../../api/hand";

const nobody = () => undefined;
const sorted = (keys: string[]) => [...keys].sort().join();

/** Fans follow the selection's order: when the same heads are put in another order, so are those of a fan over them. */
export function useFansFollow(selection: string[], fans: Schemas["FanView"][]) {
  const hand = useFanHand(nobody);
  const before = useRef(selection);
  useEffect(() => {
    const was = before.current;
    before.current = selection;
    if (was === selection || was.length < 2 || sorted(was) !== sorted(selection)) return;
    for (const fan of fans) {
      const own = new Set(fan.heads);
      const order = selection.filter((key) => own.has(key));
      if (order.length === fan.heads.length && order.join() !== fan.heads.join())
        void hand.commit(fan.id, { heads: order });
    }
  }, [selection, fans, hand]);
}
