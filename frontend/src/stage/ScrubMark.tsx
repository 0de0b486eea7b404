import { positionText } from "../views/timeline/scale";
import { useLivePart } from "../live/socket";
import { Above } from "./CueMark";

/** Said on the picture of the stage while it shows a position of a song that is not sent. */
export function ScrubMark() {
  const position = useLivePart((state) => state?.scrubbed ?? null);
  if (position === null) return null;
  return (
    <Above aria-label="Seen ahead">
      <strong role="status">{positionText(position, "25")} of the song, not sent: as it will be</strong>
    </Above>
  );
}
