import { memo, useEffect, useRef } from "react";
import styled from "styled-components";

import { usePalettes } from "../../../api/queries";
import type { BuskPad, BuskRow, Section } from "../../../api/busk";
import { useIsYours } from "../../../api/timelines";
import { engineNow } from "../../../live/clock";
import { onEveryFrame, wake } from "../../../live/loop";
import { act } from "../../../live/socket";
import { Strip } from "../../pixels/Strip";
import { PalettePicture } from "../../look/palettes/PalettePicture";
import { left } from "../hints";
import { EffectPicture } from "./EffectPicture";
import { PadDue, PadFoot, PadFrame, PadLetter, PadTitle, PadWords, PadYours, Swatch } from "./PadFrame";

interface Props {
  row: Pick<BuskRow, "id" | "name">;
  section: Section;
  pad: BuskPad;
  width: number;
  on: boolean;
  covered: boolean;
  /** When it goes, if it waits: a stamp, or null while its tempo stands. */
  waits: number | null | undefined;
  /** What it would be hard on the eye beside, in words. */
  clash: string;
  letter: string;
}

const NAMED_FROM = 58;

/** When a pad that waits will go, counted down. */
function Due({ due }: { due: number | null }) {
  const element = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const stop = onEveryFrame(() => {
      const now = engineNow();
      if (element.current && now !== null) element.current.textContent = left(due, now);
    });
    wake();
    return stop;
  }, [due]);
  return <PadDue ref={element} />;
}

const Pixels = styled.span`
  position: absolute;
  inset: 3px;
  opacity: 0.45;
  [data-on] > & {
    opacity: 1;
  }
  i {
    height: 100%;
  }
`;
const stripOf = ({ map, picture }: NonNullable<BuskPad["pixels"]>) =>
  picture ? `/api/pixels/pictures/${picture}/strip.png` : `/api/pixels/${map}/strip.png`;
const Beam = styled.span`
  position: absolute;
  inset: 0 0 14px;
  display: grid;
  place-items: center;
  overflow: hidden;
  > span {
    transform: scale(0.8);
  }
`;

/** How a beam looks. */
function BeamPicture({ palette }: { palette: number | null }) {
  const { data } = usePalettes();
  const found = data?.palettes.find((one) => one.id === palette);
  return found ? (
    <Beam>
      <PalettePicture picture={found.picture} />
    </Beam>
  ) : null;
}

function state(pad: BuskPad, on: boolean, covered: boolean, waits: Props["waits"], yours: boolean): string {
  if (pad.gone) return `, ${pad.gone}`;
  if (yours) return `${state(pad, on, covered, waits, false)}, yours: the song waits`;
  const held = on ? (covered ? ", held, but covered by something later" : ", held") : "";
  return held + (waits !== undefined ? ", waits for its beat" : "");
}

/** A pad: pressing it acts on the heads of its row at once. */
export const Pad = memo(function Pad({ row, section, pad, width, on, covered, waits, clash, letter }: Props) {
  const press = (down: boolean) => act({ do: "pad", row: row.id, pad: pad.id, down });
  const effect = section === "effects";
  const yours = useIsYours(({ subject }) => subject === `pad:${row.id}:${pad.id}`);
  return (
    <PadFrame
      style={{ "--pad": `${width}px` } as React.CSSProperties}
      aria-label={`${row.name}: ${pad.name}${state(pad, on, covered, waits, yours)}${clash && `, ${clash}`}`}
      aria-pressed={on}
      data-on={on || undefined}
      data-covered={covered || undefined}
      data-gone={pad.gone ? true : undefined}
      data-waiting={waits !== undefined || undefined}
      data-clash={clash || undefined}
      data-pad={pad.id}
      onPressStart={() => press(true)}
      onPressEnd={() => pad.while_held && press(false)}
    >
      <PadTitle title={clash ? `${pad.name}, ${clash}` : pad.name} />
      {letter && <PadLetter aria-hidden="true">{letter}</PadLetter>}
      {yours && <PadYours aria-hidden="true">yours</PadYours>}
      {waits !== undefined && <Due due={waits} />}
      {pad.gone ? (
        <PadWords>gone</PadWords>
      ) : section === "colour" ? (
        <Swatch style={{ background: stripes(pad.colours) }} />
      ) : pad.pixels ? (
        <>
          <Pixels>
            <Strip seconds={4} src={stripOf(pad.pixels)} />
          </Pixels>
          {(width >= NAMED_FROM || letter) && <PadFoot>{pad.name}</PadFoot>}
        </>
      ) : effect ? (
        <>
          <EffectPicture effect={pad.effect!} runs={on ? `row:${row.id}:${pad.id}:` : null} />
          {(width >= NAMED_FROM || letter) && <PadFoot>{pad.name}</PadFoot>}
        </>
      ) : section === "beam" ? (
        <>
          <BeamPicture palette={pad.palette} />
          <PadFoot>{pad.name}</PadFoot>
        </>
      ) : (
        <PadWords>{pad.name}</PadWords>
      )}
    </PadFrame>
  );
});

const stripes = (colours: string[]) =>
  colours.length < 2
    ? colours[0]
    : `linear-gradient(90deg, ${colours
        .map((one, n) => `${one} ${(n / colours.length) * 100}% ${((n + 1) / colours.length) * 100}%`)
        .join(", ")})`;
