import styled from "styled-components";

import { desk, useDesk } from "../../state";
import { NumberField } from "../../ui/NumberField";

const Tools = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
  white-space: nowrap;
  flex-wrap: wrap;
  font-size: 14px;
  padding-bottom: 4px;
  input {
    width: 2.2em;
    padding-left: 4px;
    min-height: 26px;
  }
  [role="group"] {
    min-height: 28px;
  }
`;
const LONGEST_S = 20;

/** How long changes by hand take: position apart from the others. */
export function HandTools() {
  const fades = useDesk((state) => state.fades);
  const seconds = (name: "others" | "position", label: string) => (
    <NumberField
      label={label}
      row
      unit="s"
      minValue={0}
      maxValue={LONGEST_S}
      step={0.1}
      value={fades[name]}
      onChange={(value) => desk.fade({ [name]: value || 0 })}
    />
  );
  return (
    <Tools role="group" aria-label="Changes by hand">
      {seconds("others", "Changes take")}
      {seconds("position", "position")}
    </Tools>
  );
}
