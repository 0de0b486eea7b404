import { useState } from "react";
import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { useColour, usePickers, type ColourView } from "../../../api/colour";
import { useColourHand } from "../../../api/hand";
import type { Rig } from "../../../api/rig";
import { Toggle } from "../../../ui/Button";
import { Origin } from "../Origin";
import { lacking, type Value } from "../values";
import { ColourDisc } from "./ColourDisc";
import { HexField } from "./HexField";
import { LightsDo } from "./LightsDo";
import { PartRow } from "./PartRow";

const Frame = styled.section`
  min-height: 164px; /* what is below stands still while colours are read */
`;
const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  @media (max-width: 1180px) {
    gap: 4px;
  }
  min-height: 30px;
  padding-bottom: 4px;
  i {
    width: 24px;
    height: 24px;
    border: 1px solid var(--edge);
    flex: none;
  }
`;
const Body = styled.div`
  display: flex;
  gap: 12px;
  > div:last-child {
    flex: 1;
    min-width: 0;
  }
  p {
    font-size: 14px;
  }
`;
const Pickers = styled(ToggleButtonGroup)`
  display: flex;
  button {
    min-height: 30px;
    padding: 0 6px;
    @media (max-width: 1180px) {
      padding: 0 4px;
    }
    font-size: 14px;
  }
  button + button {
    margin-left: -1px;
  }
`;

interface Props {
  rig: Rig;
  /** Red, green and blue of the selection. */
  base: Value[];
  chosen: number;
}

/** The colour of the selection, in every way to pick it; what the lights will do for it. */
export function ColourPanel({ rig, base, chosen }: Props) {
  const heads = base[0]!.heads;
  const drives = base.map((one) => one.value);
  const { data: pickers = [] } = usePickers();
  const [name, setName] = useState("hsv");
  const [held, setHeld] = useState<ColourView | null>(null);
  const stands = `${drives.join()} ${heads.join()}`;
  const [seen, setSeen] = useState(stands);
  if (seen !== stands) {
    setSeen(stands);
    setHeld(null); // what was kept has come back
  }
  const { data: read } = useColour(drives, heads);
  const hand = useColourHand(setHeld);
  const shown = held ?? read;
  const picker = pickers.find((one) => one.name === name);
  if (!shown || !picker) return <Frame aria-label="Colour" />;
  const pick = (which: string, numbers: number[], kept: boolean) => {
    setHeld({ ...shown, numbers: { ...shown.numbers, [which]: numbers } });
    if (kept) void hand.commit({ heads, picker: which, numbers });
    else hand.preview({ heads, picker: which, numbers });
  };
  const [hue, saturation, value] = shown.numbers["hsv"] as [number, number, number];
  const mixed = base.some((one) => one.mixed);
  return (
    <Frame aria-label="Colour">
      <Head>
        <h2>Colour</h2>
        <i style={{ background: shown.hex }} aria-hidden="true" />
        <HexField hex={shown.hex} onPick={(hex) => void hand.commit({ heads, hex })} />
        <Pickers
          aria-label="Pick by"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[name]}
          onSelectionChange={([key]) => key !== undefined && setName(String(key))}
        >
          {pickers.map(({ name: id, label }) => (
            <Toggle key={id} id={id}>
              {label}
            </Toggle>
          ))}
        </Pickers>
      </Head>
      <Body>
        <ColourDisc
          rig={rig}
          heads={heads}
          hue={hue}
          saturation={saturation}
          onPick={(h, s, kept) => pick("hsv", [h, s, value || 100], kept)}
        />
        <div>
          {picker.parts.map((part, n) => (
            <PartRow
              key={`${name} ${part.label}`}
              part={part}
              value={shown.numbers[name]?.[n] ?? part.low}
              onPick={(to, kept) => {
                const numbers = [...(shown.numbers[name] ?? [])];
                numbers[n] = to;
                pick(name, numbers, kept);
              }}
            />
          ))}
          <p>
            {mixed
              ? `Mixed; the first is ${shown.words}, from `
              : `${shown.words[0]!.toUpperCase()}${shown.words.slice(1)}, from `}
            <Origin value={base[0]!} attribute="colour">
              {lacking(base[0]!, chosen)}
            </Origin>
          </p>
          <LightsDo lights={shown.lights} onSlot={(hex) => void hand.commit({ heads, hex })} />
        </div>
      </Body>
    </Frame>
  );
}
