import { memo, useState } from "react";
import { Button, Dialog, DialogTrigger } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../../../api/client";
import { usePalettes } from "../../../../api/queries";
import { Bubble } from "../../../../ui/Sheet";
import type { Hands } from "../useEditor";
import { ChoiceSlot } from "./ChoiceSlot";
import { ColoursSlot } from "./ColoursSlot";
import { CurveSlot } from "./CurveSlot";
import { MediumSlot } from "./MediumSlot";
import { NumberSlot } from "./NumberSlot";
import { OrderSlot } from "./OrderSlot";
import { OutlineSlot } from "./OutlineSlot";
import { StopsSlot } from "./StopsSlot";
import { swatchOf } from "./stopValues";
import { TempoSlot } from "./TempoSlot";
import { TextSlot } from "./TextSlot";

export type Part = Schemas["SentencePart"];
export interface SlotProps {
  part: Part;
  editor: Hands;
  /** What was typed to open it, for a number. */
  typed: string;
  close: () => void;
}

const Value = styled(Button)`
  font: inherit;
  font-weight: 650;
  color: var(--bone);
  background: transparent;
  border: 0;
  padding: 0 3px;
  margin: 0 -1px;
  min-height: 30px;
  line-height: 28px;
  cursor: pointer;
  border-bottom: 2px solid var(--edge);
  border-radius: 2px 2px 0 0;
  text-align: left;
  &[data-warned] {
    border-bottom: 4px solid transparent;
    background: var(--hatch) bottom / 100% 4px no-repeat;
  }
  &[data-hovered] {
    border-color: var(--bone);
    background: var(--raised);
  }
  &[aria-expanded="true"],
  &[data-pressed] {
    background: var(--bone);
    color: var(--on-bone);
    border-color: var(--bone);
  }
`;
const Swatch = styled.span`
  display: inline-block;
  width: 14px;
  height: 14px;
  margin: 0 2px -2px 0;
  border: 1px solid var(--edge);
`;
const Panel = styled(Dialog)`
  outline: none;
`;
const KINDS = {
  choice: ChoiceSlot,
  number: NumberSlot,
  stops: StopsSlot,
  curve: CurveSlot,
  points: CurveSlot,
  order: OrderSlot,
  tempo: TempoSlot,
  colours: ColoursSlot,
  text: TextSlot,
  medium: MediumSlot,
  outline: OutlineSlot,
};

interface Props {
  part: Part;
  editor: Hands;
  warned: boolean;
}

function OneSlot({ part, editor, warned }: Props) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const { data: kept } = usePalettes();
  const Control = KINDS[part.kind ?? "choice"];
  return (
    <DialogTrigger
      isOpen={open}
      onOpenChange={(now) => {
        setOpen(now);
        if (!now) setTyped("");
      }}
    >
      <Value
        data-slot={part.slot}
        data-warned={warned || undefined}
        aria-label={`${part.label}: ${part.text}`}
        onKeyDown={(event) => {
          if (part.kind === "number" && /^[0-9.-]$/.test(event.key)) {
            event.preventDefault(); // the key is taken here; keys before the field has the focus count too
            setTyped((before) => before + event.key);
            setOpen(true);
          } else event.continuePropagation();
        }}
      >
        {part.swatches?.map((colour, n) => (
          <Swatch key={n} style={{ background: swatchOf(colour, kept?.palettes ?? []) }} />
        ))}
        {part.text}
      </Value>
      <Bubble placement="bottom start" offset={4}>
        <Panel aria-label={part.label ?? "Value"}>
          <Control part={part} editor={editor} typed={typed} close={() => setOpen(false)} />
        </Panel>
      </Bubble>
    </DialogTrigger>
  );
}

const same = (a: Props, b: Props) =>
  a.editor === b.editor && a.warned === b.warned && JSON.stringify(a.part) === JSON.stringify(b.part);

/** One value in a sentence: opens in place. Enter opens it; typing a digit opens a number with it. */
export const Slot = memo(OneSlot, same);
