import { Undo } from "lucide-react";
import styled from "styled-components";

import { useHand } from "../../../api/hand";
import { useBase } from "../../../api/base";
import { useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { BaseColour } from "./BaseColour";
import { BaseLevel } from "./BaseLevel";

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
const RGB = ["red", "green", "blue"];

/** The base of the selection, set by hand: what effects move. */
export function BasePanel() {
  const selection = useDesk((state) => state.selection);
  const { data } = useBase(selection);
  const hand = useHand();
  const values = data?.values ?? [];
  const byHand = values.filter((one) => one.by_hand);
  const colour = values.filter((one) => RGB.includes(one.attribute));
  function level(attribute: string) {
    const base = values.find((one) => one.attribute === attribute);
    return base && <BaseLevel key={attribute} base={base} hand={hand} />;
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
        {byHand.length > 0 && (
          <Button
            data-variant="small"
            onPress={() =>
              hand.takeBack(
                byHand.map((one) => one.attribute),
                selection,
              )
            }
          >
            <Undo size={14} aria-hidden="true" /> Take back
          </Button>
        )}
      </h2>
      {level("intensity")}
      {colour.length === RGB.length && <BaseColour base={colour} />}
      {["pan", "tilt", "zoom"].map(level)}
    </Panel>
  );
}
