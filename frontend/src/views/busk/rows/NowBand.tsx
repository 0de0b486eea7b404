import { useEffect, useRef } from "react";
import styled from "styled-components";

import { HEAD } from "../../../api/frames";
import { useRig } from "../../../api/queries";
import { HEAD_BYTES } from "../../../live/frame";
import { onEveryFrame } from "../../../live/loop";
import { live } from "../../../live/socket";
import { STAGE } from "../../../theme/tokens";

const Band = styled.canvas`
  display: block;
  width: 100%;
  height: 9px;
  image-rendering: pixelated;
  background: ${STAGE.ground};
`;
const MOST = 48;

/** What the lights of a row are now, each with its colour and level, in the order of their group. */
export function NowBand({ heads }: { heads: string[] }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { data: rig } = useRig();
  useEffect(() => {
    const element = canvas.current!;
    if (!rig || !heads.length) return;
    const seen =
      heads.length <= MOST
        ? heads
        : Array.from({ length: MOST }, (_, n) => heads[Math.floor((n * heads.length) / MOST)]!);
    const places = seen.map((key) => rig.index.get(key) ?? -1);
    element.width = places.length;
    element.height = 1;
    const context = element.getContext("2d", { alpha: false })!;
    const image = context.createImageData(places.length, 1);
    let before = -1;
    return onEveryFrame(() => {
      const frame = live.heads;
      if (!frame || frame.number === before) return;
      before = frame.number;
      places.forEach((place, n) => {
        const at = place * HEAD_BYTES;
        const known = place >= 0 && place < frame.count;
        const level = known ? frame.heads.getUint8(at + HEAD.level) / 255 : 0;
        for (let part = 0; part < 3; part++)
          image.data[4 * n + part] = known ? frame.heads.getUint8(at + HEAD.colour + part) * level : 0;
        image.data[4 * n + 3] = 255;
      });
      context.putImageData(image, 0, 0);
    });
  }, [heads, rig]);
  return <Band ref={canvas} aria-hidden="true" />;
}
