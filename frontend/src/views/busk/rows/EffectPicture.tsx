import { useEffect, useMemo, useRef } from "react";
import styled from "styled-components";

import { useLibrary, useWeave } from "../../../api/queries";
import { onEveryFrame } from "../../../live/loop";
import { live, useLive } from "../../../live/socket";
import { weaveCanvas, weaveImage } from "../../effects/weave/pixels";

const Picture = styled.span`
  position: absolute;
  inset: 3px;
  image-rendering: pixelated;
  background-size: 100% 100%;
  background-repeat: repeat-x;
  opacity: 0.45;
  [data-on] > & {
    opacity: 1;
  }
`;
const ASK = { heads: [], columns: 48, attribute: "look", phantom: 9, start: 0, notices: false };
const NOTHING = "none";

/** The weave of an effect on a pad. While it runs it moves with the light: what is at its left edge is now. */
export function EffectPicture({ effect, runs }: { effect: number; runs: string | null }) {
  const { data: library } = useLibrary();
  const document = library?.effects.find((one) => one.id === effect)?.document;
  const { data: weave } = useWeave(effect, document, ASK, "thumb");
  const source = useMemo(
    () => (weave ? `url(${weaveCanvas(weaveImage(weave)).toDataURL()})` : NOTHING),
    [weave],
  );
  const element = useRef<HTMLSpanElement>(null);
  const cycles = weave?.cycles ?? 1;
  useEffect(() => {
    const picture = element.current!;
    if (!runs) {
      picture.style.backgroundPositionX = "0";
      return;
    }
    return onEveryFrame(() => {
      const told = useLive.getState().state?.running.find((one) => one.key.startsWith(runs));
      const now = told && live.heads?.running.find((one) => one.number === told.number);
      if (!now) return;
      const share = (((now.theta / cycles) % 1) + 1) % 1;
      picture.style.backgroundPositionX = `${-share * picture.clientWidth}px`;
    });
  }, [runs, cycles]);
  return <Picture ref={element} style={{ backgroundImage: source }} />;
}
