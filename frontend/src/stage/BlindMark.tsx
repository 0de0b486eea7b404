import { useState } from "react";

import { act, useLivePart } from "../live/socket";
import { Button } from "../ui/Button";
import { NumberField } from "../ui/NumberField";
import { Mark } from "./Mark";

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
