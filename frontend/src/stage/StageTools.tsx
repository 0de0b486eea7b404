import { Maximize2, Minimize2 } from "lucide-react";
import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { useDesk } from "../state";
import { Button, Toggle } from "../ui/Button";

const Corner = styled.div`
  position: absolute;
  top: 6px;
  right: 12px;
  display: flex;
  gap: 6px;
  button {
    background: ${() => "rgb(11 9 7 / 0.72)"};
    color: #efe7d8;
    border-color: #5a5247;
  }
  button[data-selected] {
    background: #efe7d8;
    color: #14110e;
  }
`;
const Group = styled(ToggleButtonGroup)`
  display: flex;
  button + button {
    margin-left: -1px;
  }
`;

/** Which side the stage is seen from, and how tall it is. */
export function StageTools() {
  const elevation = useDesk((state) => state.elevation);
  const stage = useDesk((state) => state.stage);
  const taller = stage === "strip";
  return (
    <Corner>
      <Group
        aria-label="Seen from"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[elevation]}
        onSelectionChange={([key]) => useDesk.setState({ elevation: key as "front" | "plan" })}
      >
        <Toggle id="front" data-variant="small">
          Front
        </Toggle>
        <Toggle id="plan" data-variant="small">
          Plan
        </Toggle>
      </Group>
      <Button
        data-variant="small"
        aria-label={taller ? "Make the stage taller" : "Make the stage a strip"}
        onPress={() => useDesk.setState({ stage: taller ? "tall" : "strip" })}
      >
        {taller ? <Maximize2 size={14} aria-hidden="true" /> : <Minimize2 size={14} aria-hidden="true" />}
        {taller ? "Taller" : "Strip"}
      </Button>
    </Corner>
  );
}
