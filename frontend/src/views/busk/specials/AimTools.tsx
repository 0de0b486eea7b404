import { useState } from "react";
import styled from "styled-components";

import { specialEdits, type NamedPlace, type SpecialDocument } from "../../../api/specials";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { NameSheet } from "../edit/NameSheet";

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 50px 34px;
  gap: 3px;
  align-items: end;
  button {
    min-height: 34px;
    min-width: 0;
    padding: 0 4px 0 8px;
    line-height: 1.1;
  }
  [role="group"] {
    min-height: 34px;
  }
`;
const Told = styled.p`
  font-size: 12px;
  line-height: 1.2;
  &:empty {
    display: none;
  }
`;
const POINT = 0;
type Aim = NonNullable<SpecialDocument["aim"]>;

interface Props {
  places: NamedPlace[];
  place: NamedPlace | undefined;
  point: readonly [number, number, number];
  /** What cannot be reached, in words. */
  told: string;
  onAim: (aim: Aim) => void;
}

/** Where lights are aimed: a named place or a point, its height, and what can be done with places. */
export function AimTools({ places, place, point, told, onAim }: Props) {
  const [naming, setNaming] = useState<"new" | "rename" | null>(null);
  const [x, y, z] = point;
  async function named(name: string) {
    if (naming === "rename" && place) return specialEdits.changePlace(place.id, { name, point: [x, y, z] });
    const kept = await specialEdits.makePlace({ name, point: [x, y, z] });
    if (kept) onAim({ place: kept.id, point: null });
    return kept;
  }
  return (
    <div>
      <Line>
        <Choice
          label="Aimed at"
          options={[
            { id: POINT, text: "a point on the plan" },
            ...places.map((one) => ({ id: one.id, text: one.name })),
          ]}
          value={place?.id ?? POINT}
          onChange={(id) =>
            onAim(id === POINT ? { point: [x, y, z], place: null } : { place: Number(id), point: null })
          }
        />
        <NumberField
          label="high, m"
          minValue={-5}
          maxValue={20}
          step={0.1}
          value={z}
          onChange={(height) => Number.isFinite(height) && onAim({ point: [x, y, height], place: null })}
        />
        <ActionMenu
          label="Places"
          onAction={(id) => {
            if (id === "new" || id === "rename") setNaming(id);
            else if (id === "delete" && place) void specialEdits.removePlace(place.id);
            else {
              const other = places.find((one) => `move:${one.id}` === id);
              if (other) void specialEdits.changePlace(other.id, { name: other.name, point: [x, y, z] });
            }
          }}
          actions={[
            { id: "new", text: "Name this place" },
            ...(place
              ? [
                  { id: "rename", text: `Rename ${place.name}` },
                  { id: "delete", text: `Delete ${place.name}` },
                ]
              : places.map((one) => ({ id: `move:${one.id}`, text: `Move ${one.name} here` }))),
          ]}
        />
      </Line>
      <Told role="status">{told}</Told>
      {naming && (
        <NameSheet
          title={naming === "new" ? "Name this place" : "Rename the place"}
          name={naming === "rename" ? (place?.name ?? "") : ""}
          onClose={() => setNaming(null)}
          onKeep={named}
        />
      )}
    </div>
  );
}
