import styled from "styled-components";

import { usePalettes } from "../../../../api/queries";
import { Choice } from "../../../../ui/Choice";
import { NumberField } from "../../../../ui/NumberField";
import { paletteOf, valueKey, valueOf, type StopGoal } from "./stopValues";

const Pair = styled.div`
  display: grid;
  grid-template-columns: 150px 48px;
  gap: 6px;
  &[data-single] {
    grid-template-columns: 204px;
  }
`;
const Colour = styled.input`
  width: 48px;
  height: 40px;
  padding: 3px;
  background: transparent;
  border: 1px solid var(--edge);
  border-radius: 2px;
`;

interface Props {
  number: number;
  /** What the stops are of: colours, positions or values. */
  of: string;
  value: StopGoal;
  unit: string;
  preview: (value: StopGoal) => void;
  commit: (value: StopGoal) => void;
}

/** Where one stop goes: a colour or number of its own, the base, or a kept palette. */
export function StopValue({ number, of, value, preview, commit }: Props) {
  const { data } = usePalettes();
  if (of === "values" && paletteOf(value) === null && value !== "base")
    return (
      <Pair data-single>
        <NumberField
          label={`Value ${number}`}
          hideLabel
          value={Number(value)}
          onChange={(next) => Number.isFinite(next) && commit(next)}
        />
      </Pair>
    );
  const family = of === "colours" ? "colour" : of === "positions" ? "position" : "";
  const kept = (data?.palettes ?? []).filter((one) => one.document["family"] === family);
  const options = [
    ...(of === "colours" ? [{ id: "own", text: "Own colour" }] : []),
    { id: "base", text: "The base" },
    ...kept.map((one) => ({ id: `palette ${one.name}`, text: one.name })),
  ];
  const chosen = valueKey(value);
  const shownColour = kept.find((one) => one.name === paletteOf(value))?.document["colour"] ?? "#ffffff";
  const own = chosen === "own";
  return (
    <Pair data-single={of !== "colours" || undefined}>
      <Choice
        label={of === "colours" ? `Source of colour ${number}` : `Position ${number}`}
        hideLabel
        options={options}
        value={chosen}
        onChange={(key) => commit(valueOf(String(key), String(shownColour)))}
      />
      {of === "colours" && (
        <Colour
          type="color"
          aria-label={`Colour ${number}`}
          disabled={!own}
          value={own ? String(value) : String(shownColour)}
          onInput={(event) => preview(event.currentTarget.value)}
          onBlur={(event) => own && event.currentTarget.value !== value && commit(event.currentTarget.value)}
        />
      )}
    </Pair>
  );
}
