import { memo } from "react";
import styled from "styled-components";

import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import type { Hands } from "./useEditor";

const Box = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
  h3 {
    grid-column: 1 / 3;
  }
  > :last-child {
    grid-column: 1 / 3;
  }
`;
interface Props {
  editor: Hands;
  number: number;
  layer: { ratio?: number; start?: number; spread?: { kind: string } };
}
const SPREADS = [
  { id: "shared", text: "As the others are" },
  { id: "ripple 360", text: "Own ripple of 360°" },
  { id: "ripple 180", text: "Own ripple of 180°" },
  { id: "ripple 0", text: "Own: all together" },
  { id: "relay 1", text: "Own relay" },
];

function Alone({ editor, number, layer }: Props) {
  const set = (place: string, value: unknown) =>
    void editor.commit({ operation: "set", path: `layers.${number}.${place}`, value });
  const own = layer.spread as { kind: string; degrees?: number; handover?: number } | undefined;
  const key = own ? `${own.kind} ${own.kind === "ripple" ? own.degrees : own.handover}` : "shared";
  const known = SPREADS.some((one) => one.id === key)
    ? SPREADS
    : [...SPREADS, { id: key, text: `Own ${own!.kind}` }];
  return (
    <Box role="group" aria-label={`Layer ${number + 1} alone`}>
      <h3>Layer {number + 1} alone</h3>
      <NumberField
        label="Times as fast"
        unit="×"
        minValue={0.01}
        maxValue={64}
        formatOptions={{ maximumFractionDigits: 3 }}
        value={layer.ratio ?? 1}
        onChange={(value) => Number.isFinite(value) && set("ratio", value)}
      />
      <NumberField
        label="Starts at"
        unit="°"
        minValue={-3600}
        maxValue={3600}
        value={layer.start ?? 0}
        onChange={(value) => Number.isFinite(value) && set("start", value)}
      />
      <Choice
        label="Spread"
        options={known}
        value={key}
        onChange={(chosen) => {
          const [kind, value] = String(chosen).split(" ");
          set(
            "spread",
            kind === "shared"
              ? null
              : kind === "ripple"
                ? { kind, degrees: Number(value) }
                : { kind, handover: Number(value) },
          );
        }}
      />
    </Box>
  );
}

const parts = ({ number, layer }: Props) => JSON.stringify([number, layer.ratio, layer.start, layer.spread]);

/** What a layer can have apart from the others: its pace, where it starts, its spread. */
export const LayerAlone = memo(Alone, (a, b) => a.editor === b.editor && parts(a) === parts(b));
