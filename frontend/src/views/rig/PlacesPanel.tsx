import { useState } from "react";
import styled from "styled-components";

import type { Rig } from "../../api/rig";
import { Button } from "../../ui/Button";
import { NumberField } from "../../ui/NumberField";
import { rigEdits } from "../../api/rigEdits";

const Frame = styled.section`
  display: grid;
  gap: 12px;
  align-content: start;
  overflow: auto;
  height: 100%;
  padding: 8px 0;
  fieldset {
    border: 0;
    border-top: 1px solid var(--line);
    padding: 8px 0 0;
    margin: 0;
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 6px;
  }
  legend {
    padding: 0 8px 0 0;
  }
  label {
    font-size: 13px;
  }
  input {
    width: 3em;
  }
`;
const AXES = ["x", "y", "z"] as const;

interface Ask {
  shape: string;
  verb: string;
  fields: { id: string; label: string; unit: string }[];
}
const metres = (id: string, label: string) => ({ id, label, unit: "m" });
const FORMS: Ask[] = [
  {
    shape: "line",
    verb: "Put along a line",
    fields: [
      ...AXES.map((axis) => metres(`from_${axis}`, axis === "x" ? "From x" : axis)),
      ...AXES.map((axis) => metres(`to_${axis}`, axis === "x" ? "to x" : axis)),
    ],
  },
  {
    shape: "arc",
    verb: "Put along an arc",
    fields: [
      ...AXES.map((axis) => metres(axis, axis === "x" ? "Middle x" : axis)),
      metres("radius", "Radius"),
      { id: "from_deg", label: "From", unit: "°" },
      { id: "to_deg", label: "to", unit: "°" },
    ],
  },
  {
    shape: "circle",
    verb: "Put round a circle",
    fields: [
      ...AXES.map((axis) => metres(axis, axis === "x" ? "Middle x" : axis)),
      metres("radius", "Radius"),
      { id: "from_deg", label: "First at", unit: "°" },
    ],
  },
  {
    shape: "grid",
    verb: "Put as a grid",
    fields: [
      ...AXES.map((axis) => metres(`from_${axis}`, axis === "x" ? "First at x" : axis)),
      { id: "columns", label: "In a row", unit: "" },
      metres("across", "Across"),
      metres("along", "Upstage"),
    ],
  },
];

/** Places of the chosen fixtures, in their order: along a line, an arc, a circle, a grid; aligned, spread, mirrored. */
export function PlacesPanel({ rig, numbers }: { rig: Rig; numbers: number[] }) {
  const chosen = numbers.map((number) => rig.fixtures.find((one) => one.number === number)!).filter(Boolean);
  const [first, last] = [chosen[0]?.place ?? [0, 0, 0], chosen.at(-1)?.place ?? [0, 0, 0]];
  const start: Record<string, number> = {
    ...Object.fromEntries(
      AXES.flatMap((axis, n) => [
        [`from_${axis}`, first[n]!],
        [`to_${axis}`, last[n]!],
      ]),
    ),
    x: 0,
    y: first[1]!,
    z: first[2]!,
    radius: 3,
    from_deg: 0,
    to_deg: 180,
    columns: 4,
    across: 1,
    along: 1,
  };
  const [typed, setTyped] = useState<Record<string, number>>({});
  const value = (id: string) => typed[id] ?? Math.round(start[id]! * 100) / 100;
  if (!numbers.length)
    return (
      <Frame>
        <p>
          Select fixtures, in the table or on the stage: their places are set here, in the order of the
          selection.
        </p>
      </Frame>
    );
  return (
    <Frame aria-label="Places">
      <p>
        {numbers.length} fixture{numbers.length === 1 ? "" : "s"}, in the order of the selection.
      </p>
      <div style={{ display: "flex", flexWrap: "wrap", gap: 8 }}>
        {AXES.map((axis) => (
          <Button
            key={axis}
            data-variant="small"
            onPress={() => void rigEdits.arrange(numbers, `align ${axis}`, {})}
          >
            Align {axis}
          </Button>
        ))}
        {AXES.map((axis) => (
          <Button
            key={axis}
            data-variant="small"
            onPress={() => void rigEdits.arrange(numbers, `spread ${axis}`, {})}
          >
            Spread {axis}
          </Button>
        ))}
        <Button data-variant="small" onPress={() => void rigEdits.arrange(numbers, "mirror", {})}>
          Mirror
        </Button>
      </div>
      {FORMS.map(({ shape, verb, fields }) => (
        <fieldset key={shape}>
          <legend>{verb}</legend>
          {fields.map(({ id, label, unit }) => (
            <NumberField
              key={id}
              label={label}
              unit={unit}
              value={value(id)}
              step={0.01}
              onChange={(next) => setTyped({ ...typed, [id]: next })}
            />
          ))}
          <Button
            data-variant="small"
            onPress={() =>
              void rigEdits.arrange(
                numbers,
                shape,
                Object.fromEntries(fields.map(({ id }) => [id, value(id)])),
              )
            }
          >
            {verb}
          </Button>
        </fieldset>
      ))}
    </Frame>
  );
}
