import { useMemo } from "react";
import styled from "styled-components";

import { useHand } from "../../api/hand";
import { useBase } from "../../api/base";
import { useDraft, useRig } from "../../api/queries";
import { useDesk } from "../../state";
import { ColourPanel } from "./colour/ColourPanel";
import { hexOf } from "./colour/disc";
import { DarkNotice } from "./DarkNotice";
import { DraftPanel } from "./DraftPanel";
import { useFansFollow } from "./fan/useFansFollow";
import { LowerPanels } from "./LowerPanels";
import { Shelves } from "./Shelves";
import { SlotRow } from "./SlotRow";
import { FAMILIES } from "./values";
import { ValueRow } from "./ValueRow";

const Frame = styled.section`
  display: grid;
  grid-template-columns: minmax(372px, 0.9fr) minmax(430px, 1.05fr) minmax(300px, 0.8fr);
  height: 100%;
  @media (max-width: 1180px) {
    grid-template-columns: 318px minmax(380px, 1fr) 296px;
  }
  > * {
    min-width: 0;
    min-height: 0;
    padding: 4px 12px;
    overflow: auto;
  }
  > * + * {
    border-left: 1px solid var(--line);
  }
  h2 {
    font-size: 14px;
    line-height: 20px;
  }
`;
const Middle = styled.div`
  display: flex;
  flex-direction: column;
  gap: 2px;
`;
const Right = styled.div`
  display: grid;
  grid-template-rows: minmax(150px, 1fr) fit-content(46%);
  gap: 4px;
  overflow: hidden !important;
  > * {
    min-width: 0;
  }
  > * + * {
    border-top: 1px solid var(--line);
  }
`;
const Empty = styled.p`
  padding: 16px 0;
  max-width: 46em;
`;
const RGB = ["red", "green", "blue"];
const TITLES = { intensity: "Intensity", position: "Position", beam: "Beam" };
const NO_FANS: never[] = [];

/** Values of the selection, family by family, colours, where they point, palettes, and what is set by hand. */
export function LookView() {
  const selection = useDesk((state) => state.selection);
  const { data: rig } = useRig();
  const { data } = useBase(selection);
  const { data: draft } = useDraft();
  const hand = useHand();
  const fans = draft?.fans ?? NO_FANS;
  useFansFollow(selection, fans);
  const values = useMemo(() => (selection.length ? (data?.values ?? []) : []), [selection, data]);
  const set = useMemo(() => {
    const chosen = new Set(selection);
    const listed = (draft?.listed ?? []).filter((one) => one.family !== "intensity");
    return [...new Set(listed.flatMap((one) => one.heads.filter((key) => chosen.has(key))))];
  }, [draft, selection]);
  if (!rig) return null;
  const colour = values.filter((one) => RGB.includes(one.attribute));
  const mixes = colour.length === RGB.length;
  return (
    <Frame>
      <section aria-label="Values" tabIndex={0}>
        {!selection.length && (
          <Empty>
            Select lights on the stage, or a group above: their level, position, colour and beam are set here,
            each in its own unit.
          </Empty>
        )}
        <DarkNotice rig={rig} heads={set} hand={hand} />
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
      <Middle>
        {mixes && <ColourPanel rig={rig} base={colour} chosen={selection.length} />}
        {values.length > 0 && (
          <LowerPanels
            rig={rig}
            values={values}
            selection={selection}
            fans={fans}
            colour={mixes ? hexOf(colour.map((one) => one.value)) : null}
            pointed={(data?.pointed_at as [number, number, number] | null | undefined) ?? null}
          />
        )}
      </Middle>
      <Right>
        <Shelves selection={selection} />
        <DraftPanel selection={selection} hand={hand} />
      </Right>
    </Frame>
  );
}
