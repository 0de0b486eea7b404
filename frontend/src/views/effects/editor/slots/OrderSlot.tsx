import { X } from "lucide-react";
import styled from "styled-components";

import { Button } from "../../../../ui/Button";
import { Choice } from "../../../../ui/Choice";
import type { SlotProps } from "./Slot";

const Panel = styled.div`
  display: grid;
  gap: 8px;
  width: 300px;
`;
const Step = styled.div`
  display: grid;
  grid-template-columns: 60px 1fr 40px;
  align-items: center;
  gap: 6px;
`;

/** A chain of orders, each on what the one before left. */
export function OrderSlot({ part, editor }: SlotProps) {
  const steps = part.value as string[];
  const options = (part.options ?? []).map((option) => ({ id: String(option.value), text: option.text }));
  const set = (value: string[]) => void editor.commit({ operation: "set", path: part.slot!, value });
  return (
    <Panel>
      {steps.map((step, n) => (
        <Step key={n}>
          <span>{n ? "then" : "Heads"}</span>
          <Choice
            label={n ? `Order ${n + 1}` : "Order"}
            hideLabel
            options={options}
            value={step}
            onChange={(key) => set(steps.map((old, m) => (m === n ? String(key) : old)))}
          />
          {steps.length > 1 && (
            <Button
              data-variant="plain"
              aria-label={`Remove order ${n + 1}`}
              onPress={() => set(steps.filter((_, m) => m !== n))}
            >
              <X size={14} aria-hidden="true" />
            </Button>
          )}
        </Step>
      ))}
      <Button isDisabled={steps.length >= 8} onPress={() => set([...steps, "centre-out"])}>
        Then another order
      </Button>
    </Panel>
  );
}
