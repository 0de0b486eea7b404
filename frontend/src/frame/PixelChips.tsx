import { usePixelsTold } from "../api/pixels";
import { act } from "../live/socket";
import { Chip } from "./Chip";

/** Pixel maps that are on stage. */
export function PixelChips() {
  const told = usePixelsTold();
  return (
    <>
      {told?.map((one) => (
        <Chip
          key={`${one.map}:${one.picture}`}
          name={one.name}
          from={`pixels, ${one.by} · ${Math.round(one.share * 100)} %`}
          isFading={!one.on}
          stop={{
            label: `Take out ${one.name}`,
            does: () => act({ do: "pixels", map: one.map, picture: one.picture, on: false }),
          }}
        />
      ))}
    </>
  );
}
