import { useMedia } from "../../../../api/pixels";
import type { SlotProps } from "./Slot";
import { ChoiceSlot } from "./ChoiceSlot";

/** Which picture or film. */
export function MediumSlot(props: SlotProps) {
  const { data: media } = useMedia();
  if (!media?.length) return <p>There is no file yet. Drop a picture or a film onto the canvas.</p>;
  const options = media.map((one) => ({ value: one.hash, text: one.name }));
  return <ChoiceSlot {...props} part={{ ...props.part, options }} />;
}
