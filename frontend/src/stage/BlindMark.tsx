import { useState } from "react";
import styled from "styled-components";

import { act, useLivePart } from "../live/socket";
import { Button } from "../ui/Button";
import { NumberField } from "../ui/NumberField";

const Mark = styled.section`
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 3px 12px;
  background: var(--stage-bone);
  color: var(--stage-ink);
  strong {
    flex: 1;
  }
  button {
    min-height: 30px;
    border-color: var(--stage-ink);
    color: var(--stage-ink);
  }
  button[data-hovered] {
    background: color-mix(in srgb, var(--stage-ink) 12%, transparent);
  }
  [role="group"],
  input {
    min-height: 28px;
    color: var(--stage-ink);
    border-color: var(--stage-ink);
  }
  input {
    width: 2.6em;
  }
  span {
    color: var(--stage-ink);
  }
`;
const FIRST_S = 3;
const LONGEST_S = 20;

/** Said on the picture of the stage while the draft is prepared: it shows what is not on stage yet; here it is sent. */
export function BlindMark() {
  const blind = useLivePart((state) => state?.blind ?? false);
  const [seconds, setSeconds] = useState(FIRST_S);
  if (!blind) return null;
  const send = (send_s: number) => act({ do: "blind", on: false, send_s });
  return (
    <Mark aria-label="Blind">
      <strong role="status">Blind: this is the prepared look. The stage stays as it was.</strong>
      <NumberField
        label="Seconds to send in"
        hideLabel
        unit="s"
        minValue={0}
        maxValue={LONGEST_S}
        step={0.1}
        value={seconds}
        onChange={(value) => setSeconds(value || 0)}
      />
      <Button data-variant="small" onPress={() => send(seconds)}>
        Send in {seconds} s
      </Button>
      <Button data-variant="small" onPress={() => send(0)}>
        Send now
      </Button>
    </Mark>
  );
}
