import { useState } from "react";
import styled from "styled-components";

import { misbehave, type SimulatedNode } from "../../api/output";
import { Button, Toggle } from "../../ui/Button";
import { NumberField } from "../../ui/NumberField";
import { ShareField } from "../../ui/ShareField";
import { TextField } from "../../ui/TextField";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: end;
  padding: 0 0 12px;
`;

/** How a simulated node misbehaves: to see what is told when a real one does. */
export function FaultTools({ node }: { node: SimulatedNode }) {
  const [name, setName] = useState<string | null>(null);
  const now = { drop: node.drop, delay_ms: node.delay_ms, vanished: node.vanished, name: node.calls_itself };
  const tell = (change: Partial<typeof now>) =>
    void misbehave({ protocol: node.protocol, ...now, ...change });
  const well = !node.drop && !node.delay_ms && !node.vanished && !node.calls_itself;
  return (
    <Row role="group" aria-label={`Faults of the ${node.name}`}>
      <ShareField label="Loses packets" value={node.drop} onChange={(drop) => tell({ drop: drop || 0 })} />
      <NumberField
        label="Comes late by"
        unit="ms"
        minValue={0}
        maxValue={5000}
        value={node.delay_ms}
        onChange={(delay) => tell({ delay_ms: delay || 0 })}
      />
      <TextField
        label="Calls itself"
        value={name ?? node.name}
        onChange={setName}
        onBlur={() => {
          if (name !== null) tell({ name });
          setName(null);
        }}
      />
      <Toggle isSelected={node.vanished} onChange={(vanished) => tell({ vanished })}>
        {node.vanished ? "Unplugged" : "Unplug it"}
      </Toggle>
      <Button
        data-variant="plain"
        isDisabled={well}
        onPress={() => tell({ drop: 0, delay_ms: 0, vanished: false, name: "" })}
      >
        Behave
      </Button>
    </Row>
  );
}
