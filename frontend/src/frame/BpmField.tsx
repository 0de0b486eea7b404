import { act } from "../live/socket";
import { NumberField } from "../ui/NumberField";

/** How fast a tempo is: set by a number, while it runs. */
export function BpmField({ tempo }: { tempo: { name: string; bpm: number } | undefined }) {
  return (
    <NumberField
      label="Beats per minute"
      hideLabel
      unit="BPM"
      minValue={10}
      maxValue={400}
      step={0.1}
      formatOptions={{ minimumFractionDigits: 1, maximumFractionDigits: 1 }}
      value={tempo ? Math.round(tempo.bpm * 10) / 10 : NaN}
      isDisabled={!tempo}
      onChange={(value) => tempo && value >= 10 && act({ do: "bpm", tempo: tempo.name, value })}
    />
  );
}
