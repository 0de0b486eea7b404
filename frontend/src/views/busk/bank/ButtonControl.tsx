import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { act, useLive } from "../../../live/socket";
import { ControlMenu } from "./ControlMenu";

const Frame = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  border: 1px solid var(--edge);
  border-radius: 2px;
  min-height: 56px;
  &[data-on] {
    border-color: var(--bone);
    background: var(--bone);
    color: var(--on-bone);
  }
`;
const Press = styled(AriaButton)`
  background: transparent;
  border: 0;
  color: inherit;
  font: inherit;
  text-align: left;
  padding: 6px 12px;
  cursor: pointer;
  touch-action: none;
  overflow: hidden;
  small {
    display: block;
    font-size: 13px;
    opacity: 0.8;
  }
  &[data-pressed] {
    outline: 3px solid var(--edge);
    outline-offset: -3px;
  }
`;

const waysOf = (flash: boolean, on: boolean) =>
  flash ? "while held" : on ? "on, press for off" : "press for on";

/** A button: on and off by presses, or on while it is held. */
export function ButtonControl({ control }: { control: Schemas["ControlView"] }) {
  const on = useLive((live) => (live.state?.levels[control.key] ?? 0) > 0);
  const flash = control.mode === "flash";
  const words = control.stops ? "at once, whatever started them" : waysOf(flash, on);
  const press = (down: boolean) => act({ do: "press", control: control.key, down });
  return (
    <Frame data-on={on || undefined}>
      <Press
        aria-pressed={flash || control.stops ? undefined : on}
        onPressStart={() => press(true)}
        onPressEnd={() => flash && !control.stops && press(false)}
      >
        {control.name}
        <small>{control.waits ? "waits: its group is empty" : words}</small>
      </Press>
      <ControlMenu control={control} />
    </Frame>
  );
}
