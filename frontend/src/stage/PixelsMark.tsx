import { usePixels, usePixelsSeen } from "../api/pixels";
import { act } from "../live/socket";
import { useDesk } from "../state";
import { Button } from "../ui/Button";
import { Above } from "./CueMark";

/** Said on the picture of the stage while it shows a pixel map that is not sent. */
export function PixelsMark() {
  const seen = usePixelsSeen();
  const view = useDesk((state) => state.view);
  const { data } = usePixels(seen !== null);
  if (!seen) return null;
  const map = data?.maps.find((one) => one.id === seen[0])?.name ?? "A pixel map";
  const picture = data?.pictures.find((one) => one.id === seen[1])?.name;
  return (
    <Above aria-label="Seen ahead">
      <strong role="status">{picture ? `${picture} on ${map}` : map}, not sent: as it would be</strong>
      {view !== "pixels" && (
        <Button data-variant="small" onPress={() => act({ do: "look-at-pixels", map: 0 })}>
          Back to the stage
        </Button>
      )}
    </Above>
  );
}
