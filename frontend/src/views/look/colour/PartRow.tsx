import type { Picker } from "../../../api/colour";
import { SlideRow } from "../SlideRow";

type Part = Picker["parts"][number];

/** A range this small has steps of a hundredth, others of one. */
const SMALL = 2;

interface Props {
  part: Part;
  value: number;
  onPick: (value: number, kept: boolean) => void;
}

/** One number of a way to pick a colour: slide it, or type it. */
export function PartRow({ part, value, onPick }: Props) {
  const { label, unit, low, high } = part;
  const small = high - low < SMALL;
  const within = (to: number) => Math.min(Math.max(to, low), high);
  const keep = (to: number) => onPick(within(to), true);
  return (
    <SlideRow
      label={label}
      unit={unit}
      low={low}
      high={high}
      value={within(value)}
      shown={String(small ? Math.round(value * 1000) / 1000 : Math.round(value)).replace("-", "−")}
      columns="84px minmax(60px, 1fr) 72px 18px"
      narrow="72px minmax(40px, 1fr) 64px 16px"
      onSlide={(to) => onPick(to, false)}
      onKeep={keep}
      onTyped={(text) => {
        const number = Number(text.replace(",", ".").replace("−", "-"));
        if (Number.isFinite(number)) keep(number);
      }}
      onStep={(by) => keep(value + by * (small ? 0.01 : 1))}
    />
  );
}
