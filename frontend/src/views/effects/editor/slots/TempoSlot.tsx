import { useShow } from "../../../../api/queries";
import type { SlotProps } from "./Slot";
import { ChoiceSlot } from "./ChoiceSlot";

/** Which tempo. */
export function TempoSlot(props: SlotProps) {
  const { data: tempos } = useShow((show) => show.tempos);
  const options = (tempos ?? []).map((tempo) => ({ value: tempo.name, text: tempo.name }));
  return <ChoiceSlot {...props} part={{ ...props.part, options }} />;
}
