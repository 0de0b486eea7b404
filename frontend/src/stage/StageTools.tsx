import { Maximize2, Minimize2 } from "lucide-react";
import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { fixturesOf } from "../api/rig";
import { desk, useDesk, useStageSize, type StageSize } from "../state";
import { Button, Toggle } from "../ui/Button";

const Corner = styled.div`
  position: absolute;
  top: 6px;
  right: 12px;
  display: flex;
  gap: 6px;
  button {
    background: color-mix(in srgb, var(--stage-ground) 72%, transparent);
    color: var(--stage-bone);
    border-color: var(--stage-edge);
  }
  &[data-pointing] > :not([data-selected]) {
    visibility: hidden; /* lights lie behind them */
  }
  button[data-selected] {
    background: var(--stage-bone);
    color: var(--stage-ink);
  }
`;
const Group = styled(ToggleButtonGroup)`
  display: flex;
  button + button {
    margin-left: -1px;
  }
`;

const HIDDEN: { id: StageSize; text: string } = { id: "hidden", text: "Hidden" };
const SIZES: { id: StageSize; text: string }[] = [
  { id: "thin", text: "Thin" },
  { id: "strip", text: "Strip" },
  { id: "tall", text: "Tall" },
];

/** Which light is broken: the one that is selected, else one that is pointed at first. */
function brokenOf(selection: string[]): number | "first" {
  const numbers = fixturesOf(selection);
  return numbers.length === 1 ? numbers[0]! : "first";
}

/** Which side the stage is seen from, and how much of this view it takes. */
export function StageTools() {
  const elevation = useDesk((state) => state.elevation);
  const size = useStageSize();
  const asking = useDesk((state) => state.asking);
  const standing = useDesk((state) => state.standing !== null);
  const busking = useDesk((state) => state.view === "busk");
  const full = size === "full";
  const sizes = busking ? [HIDDEN, ...SIZES] : SIZES;
  return (
    <Corner data-pointing={asking || standing || undefined}>
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
      <Group
        aria-label="Size of the stage in this view"
        selectionMode="single"
        disallowEmptySelection={!full}
        selectedKeys={full ? [] : [size]}
        onSelectionChange={([key]) => key && desk.size(key as StageSize)}
      >
        {sizes.map(({ id, text }) => (
          <Toggle key={id} id={id} data-variant="small">
            {text}
          </Toggle>
        ))}
      </Group>
      <Toggle
        data-variant="small"
        aria-label="Why? Then point at a light"
        isSelected={asking}
        onChange={(on) => useDesk.setState({ asking: on, standing: null })}
      >
        Why?
      </Toggle>
      <Toggle
        data-variant="small"
        aria-label="Stand in: point at a broken light, then at another one"
        isSelected={standing}
        onChange={(on) => desk.standIn(on ? brokenOf(useDesk.getState().selection) : null)}
      >
        Stand in
      </Toggle>
      <Button
        data-variant="small"
        aria-label={full ? "Leave the full screen" : "Full screen for the stage"}
        onPress={() => desk.size("full")}
      >
        {full ? <Minimize2 size={14} aria-hidden="true" /> : <Maximize2 size={14} aria-hidden="true" />}
        {full ? "Leave" : "Full"}
      </Button>
    </Corner>
  );
}
