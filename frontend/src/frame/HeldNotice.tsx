import styled from "styled-components";

import { act, useLivePart } from "../live/socket";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";

const Loud = styled(Notice)`
  font-weight: 650;
  /* over the stage: what is pressed meanwhile stays where it is */
  position: fixed;
  top: 52px;
  left: 0;
  right: 0;
  z-index: 50;
  button {
    border-color: var(--on-bone);
  }
`;

/** Said on every page while somebody holds slots by hand: they go over everything. */
export function HeldNotice() {
  const held = useLivePart((state) => state?.held ?? []);
  if (!held.length) return null;
  const [first] = held;
  const more = held.length > 1 ? ` and ${held.length - 1} more` : "";
  return (
    <Loud role="alert">
      Slot {first!.slot} of universe {first!.universe} is held at {first!.value}
      {more} by hand, over everything.
      <Button
        data-variant="small"
        onPress={() => held.forEach(({ universe, slot }) => act({ do: "hold-slot", universe, slot }))}
      >
        Let go
      </Button>
    </Loud>
  );
}
