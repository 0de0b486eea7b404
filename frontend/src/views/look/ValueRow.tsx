import { useRef, useState } from "react";

import type { useHand } from "../../api/hand";
import { Origin } from "./Origin";
import { SlideRow } from "./SlideRow";
import { inWords, lacking, type Value } from "./values";

interface Props {
  value: Value;
  chosen: number;
  hand: ReturnType<typeof useHand>;
}

/** One attribute of the selection: slide it (with Shift: each by the same difference), or type it. */
export function ValueRow({ value, chosen, hand }: Props) {
  const { low, high, attribute, label, unit, heads } = value;
  const [held, setHeld] = useState<number | null>(null);
  const drag = useRef<{ from: number; relative: boolean }>({ from: value.value, relative: false });
  const [seen, setSeen] = useState(value);
  if (seen !== value) {
    setSeen(value);
    setHeld(null); // what was kept has come back
  }
  const base = { attribute, heads };
  const moved = (to: number) =>
    drag.current.relative ? { ...base, by: to - drag.current.from } : { ...base, to };
  return (
    <SlideRow
      label={label}
      unit={unit}
      low={low}
      high={high}
      value={held ?? value.value}
      shown={held === null ? inWords(value) : inWords({ least: held, most: held, mixed: false })}
      columns="66px minmax(60px, 1fr) 118px 17px 74px"
      narrow="60px minmax(44px, 1fr) 92px 16px 56px"
      onGrab={(event) => (drag.current = { from: held ?? value.value, relative: event.shiftKey })}
      onSlide={(to) => {
        setHeld(to);
        hand.preview(moved(to));
      }}
      onKeep={(to) => {
        setHeld(to);
        const body = moved(to);
        drag.current = { from: to, relative: false }; // what comes next by keys is a value again
        void hand.commit(body).then((done) => done || setHeld(null));
      }}
      onTyped={(text) => void hand.commit({ ...base, text })}
      onStep={(by) => void hand.commit({ ...base, by })}
    >
      <Origin value={value}>{lacking(value, chosen)}</Origin>
    </SlideRow>
  );
}
