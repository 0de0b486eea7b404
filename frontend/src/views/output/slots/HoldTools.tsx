import { useEffect, useRef } from "react";
import styled from "styled-components";

import { api, take } from "../../../api/client";
import { tell } from "../../../api/queries";
import { act } from "../../../live/socket";
import { desk } from "../../../state";
import { Button } from "../../../ui/Button";
import { NumberField } from "../../../ui/NumberField";

const Row = styled.div`
  display: flex;
  gap: 8px 16px;
  align-items: center;
`;

interface Props {
  universe: number;
  slot: number;
  value: number;
  onSlot: (slot: number) => void;
  onValue: (value: number) => void;
}

/** One slot held at a value for as long as the button is pressed, to see what it does; or why it has the value it has. */
export function HoldTools({ universe, slot, value, onSlot, onValue }: Props) {
  const held = useRef<{ universe: number; slot: number } | null>(null);
  const letGo = () => {
    if (held.current) act({ do: "hold-slot", ...held.current });
    held.current = null;
  };
  useEffect(() => letGo, []);
  const why = async () => {
    try {
      const { head, attribute } = await take(api.POST("/api/trace/slot", { body: { universe, slot } }));
      desk.ask({ head, attribute });
    } catch (error) {
      tell(error);
    }
  };
  return (
    <Row role="group" aria-label="Hold a slot">
      <NumberField
        label="Slot"
        row
        minValue={1}
        maxValue={512}
        value={slot}
        onChange={(given) => given >= 1 && onSlot(given)}
      />
      <NumberField
        label="at"
        row
        minValue={0}
        maxValue={255}
        value={value}
        onChange={(given) => given >= 0 && onValue(given)}
      />
      <Button
        onPressStart={() => {
          held.current = { universe, slot };
          act({ do: "hold-slot", universe, slot, value });
        }}
        onPressEnd={letGo}
      >
        Hold while pressed
      </Button>
      <Button onPress={() => void why()}>Why this value?</Button>
    </Row>
  );
}
