import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";

import type { Control } from "../../../api/pages";
import { act, useLive, useLivePart } from "../../../live/socket";
import { Label } from "./Label";

const Press = styled(AriaButton)`
  display: block;
  width: 100%;
  height: 100%;
  min-height: 44px;
  min-width: 0;
  border: 1px solid var(--edge);
  border-radius: 2px;
  background: transparent;
  color: var(--bone);
  font: inherit;
  text-align: left;
  padding: 0;
  cursor: pointer;
  touch-action: none;
  overflow: hidden;
  position: relative;
  &[data-hovered] {
    background: var(--raised);
  }
  &[data-on] {
    border-color: var(--bone);
    background: var(--bone);
    color: var(--on-bone);
  }
  &[data-runs]:not([data-on])::after {
    content: "";
    position: absolute;
    inset: auto 0 0;
    height: 5px;
    background: var(--hatch);
  }
  &[data-pressed] {
    outline: 3px solid var(--edge);
    outline-offset: -3px;
  }
  &[data-gone] {
    border-style: dashed;
    color: var(--quiet);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
    outline-offset: 1px;
  }
`;
/** Kinds that are on, or held; all others act once. */
const TURNS = ["effect", "look", "alone", "special", "master", "actions"];

/** Whether what a button acts on runs now: a cue list that is on a cue. */
const useRuns = (control: Control) =>
  useLivePart((state) => {
    if (control.drives.kind !== "list") return false;
    return state?.lists?.find((one) => one.id === control.drives.number)?.cue != null;
  });

/** A button: on and off by presses, on while it is held, or something done at once. */
export function ButtonControl({ control }: { control: Control }) {
  const on = useLive((live) => (live.state?.levels[control.key] ?? 0) > 0);
  const runs = useRuns(control);
  const { kind, number } = control.drives;
  const turns = TURNS.includes(kind) && !(kind === "special" && number == null);
  const held = turns && control.mode === "flash";
  const press = (down: boolean) => act({ do: "press", control: control.key, down });
  return (
    <Press
      aria-pressed={turns && !held ? on : undefined}
      data-on={(turns && on) || undefined}
      data-runs={runs || undefined}
      data-gone={control.gone || undefined}
      onPressStart={() => press(true)}
      onPressEnd={() => held && press(false)}
    >
      <Label control={control} />
    </Press>
  );
}
