import styled from "styled-components";

import { useHand } from "../../api/hand";
import { useBase, useRig } from "../../api/queries";
import { useDesk } from "../../state";
import { BaseColour } from "../effects/base/BaseColour";
import { useBaseEdit } from "../effects/base/base";
import { AimPanel } from "./AimPanel";
import { DraftPanel } from "./DraftPanel";
import { FAMILIES } from "./values";
import { SlotRow } from "./SlotRow";
import { ValueRow } from "./ValueRow";

const Frame = styled.section`
  display: grid;
  grid-template-columns: minmax(440px, 1.3fr) minmax(280px, 1fr) minmax(240px, 0.8fr);
  height: 100%;
  > * {
    min-width: 0;
    min-height: 0;
    padding: 10px 14px;
    overflow: auto;
  }
  > * + * {
    border-left: 1px solid var(--line);
  }
  h2 {
    font-size: 14px;
    line-height: 22px;
  }
`;
const Empty = styled.p`
  padding: 20px;
  max-width: 46em;
`;
const RGB = ["red", "green", "blue"];
const TITLES = { intensity: "Intensity", position: "Position", beam: "Beam" };

/** Values of the selection, family by family, where they point, and what is set by hand. */
export function LookView() {
  const selection = useDesk((state) => state.selection);
  const { data: rig } = useRig();
  const { data } = useBase(selection);
  const hand = useHand();
  const edit = useBaseEdit();
  if (!rig) return null;
  const values = data?.values ?? [];
  const colour = values.filter((one) => RGB.includes(one.attribute));
  const pan = values.find((one) => one.attribute === "pan");
  if (!selection.length)
    return (
      <Frame>
        <Empty>
          Select lights on the stage, or a group above: their level, position, colour and beam are set here,
          each in its own unit.
        </Empty>
        <div />
        <DraftPanel selection={selection} hand={hand} />
      </Frame>
    );
  return (
    <Frame>
      <section aria-label="Values" tabIndex={0}>
        {FAMILIES.map((family) => {
          const own = values.filter((one) => one.family === family);
          return (
            own.length > 0 && (
              <section key={family} aria-label={TITLES[family]}>
                <h2>{TITLES[family]}</h2>
                {own.map((value) => {
                  const Shown = value.unit === "slot" ? SlotRow : ValueRow;
                  return <Shown key={value.attribute} value={value} chosen={selection.length} hand={hand} />;
                })}
              </section>
            )
          );
        })}
      </section>
      {pan ? (
        <AimPanel
          rig={rig}
          keys={pan.heads}
          pointed={(data?.pointed_at as [number, number, number] | null | undefined) ?? null}
        />
      ) : (
        <Empty>None of these lights moves.</Empty>
      )}
      <div>
        {colour.length === RGB.length && (
          <section aria-label="Colour">
            <h2>Colour</h2>
            <BaseColour base={colour} edit={edit} />
          </section>
        )}
        <DraftPanel selection={selection} hand={hand} />
      </div>
    </Frame>
  );
}
