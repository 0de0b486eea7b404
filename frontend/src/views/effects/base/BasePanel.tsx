import { Undo } from "lucide-react";
import styled from "styled-components";

import { useDraft, useRig } from "../../../api/queries";
import { useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { BaseColour } from "./BaseColour";
import { BaseLevel } from "./BaseLevel";
import { baseOf, useBase } from "./base";

const Panel = styled.aside`
  padding: 12px 16px;
  display: flex;
  flex-direction: column;
  gap: 4px;
  h2 {
    display: flex;
    justify-content: space-between;
    align-items: center;
    min-height: 40px;
  }
`;
const PLAIN: Record<string, { label: string; unit: string }> = {
  intensity: { label: "Intensity", unit: "%" },
  pan: { label: "Pan", unit: "°" },
  tilt: { label: "Tilt", unit: "°" },
  zoom: { label: "Zoom", unit: "°" },
};

/** The base of the selection, set by hand: what effects move. */
export function BasePanel() {
  const { data: rig } = useRig();
  const { data: draft } = useDraft();
  const selection = useDesk((state) => state.selection);
  const edit = useBase();
  const heads = new Set(selection);
  const chosen = (rig?.heads ?? []).filter((head) => heads.has(head.key));
  const set = Object.values(draft?.values ?? {}).some((values) => selection.some((key) => key in values));
  function level(attribute: string) {
    const base = rig && baseOf(attribute, chosen, rig, draft?.values ?? {});
    return base && <BaseLevel key={attribute} {...PLAIN[attribute]!} base={base} edit={edit} />;
  }
  if (!selection.length)
    return (
      <Panel>
        <h2>Base</h2>
        <p>Select heads to set their level, colour and position by hand. Effects move around this base.</p>
      </Panel>
    );
  return (
    <Panel aria-label="Base">
      <h2>
        Base of {selection.length} head{selection.length === 1 ? "" : "s"}
        {set && (
          <Button data-variant="small" onPress={() => edit.takeBack(draft!.values)}>
            <Undo size={14} aria-hidden="true" /> Take back
          </Button>
        )}
      </h2>
      {level("intensity")}
      {chosen.some((head) => head.attributes.includes("red")) && (
        <BaseColour values={draft?.values ?? {}} heads={chosen} edit={edit} />
      )}
      {["pan", "tilt", "zoom"].map(level)}
    </Panel>
  );
}
