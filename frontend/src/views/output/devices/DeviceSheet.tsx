import { useState } from "react";
import styled from "styled-components";

import { Refused } from "../../../api/client";
import { deviceEdits, type DeviceView } from "../../../api/devices";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 20px;
  width: 520px;
`;
const Problem = styled.p`
  border: 1px dashed var(--bone);
  padding: 8px 12px;
  max-width: 520px;
`;
interface Props {
  device: DeviceView | null;
  ports: string[];
  onClose: () => void;
}
type Way = "simulator" | "network" | "port";

/** A device: its name, what it speaks and where it is. */
export function DeviceSheet({ device, ports, onClose }: Props) {
  const before = device?.document;
  const [name, setName] = useState(device?.name ?? "");
  const [speaks, setSpeaks] = useState<"OSC" | "MIDI">(before?.speaks ?? "OSC");
  const [way, setWay] = useState<Way>(
    !before || before.to === "simulator" ? "simulator" : before.port ? "network" : "port",
  );
  const [to, setTo] = useState(way === "simulator" ? "" : (before?.to ?? ""));
  const [port, setPort] = useState(before?.port || 8000);
  const [problem, setProblem] = useState<{ text: string; ask: boolean } | null>(null);
  const ways = [
    { id: "simulator", text: "the simulator on this machine" },
    { id: "network", text: speaks === "OSC" ? "an address (UDP)" : "an address (TCP)" },
    ...(speaks === "MIDI" ? [{ id: "port", text: "a MIDI port of this machine" }] : []),
  ];
  async function keep(agreed: boolean) {
    const document = { speaks, to: way === "simulator" ? way : to, port: way === "network" ? port : 0 };
    try {
      await deviceEdits.keep(device?.id ?? null, { name, document, agreed });
      onClose();
    } catch (error) {
      const refused = error instanceof Refused ? error : null;
      setProblem({ text: refused?.message ?? String(error), ask: refused?.place === "agreed" });
    }
  }
  return (
    <Sheet title={device ? "Device" : "New device"} isOpen onClose={onClose}>
      <Grid>
        <TextField label="Name" value={name} onChange={setName} />
        <Choice
          label="Speaks"
          value={speaks}
          options={[
            { id: "OSC", text: "OSC" },
            { id: "MIDI", text: "MIDI" },
          ]}
          onChange={(key) => {
            setSpeaks(key as "OSC" | "MIDI");
            setWay("simulator");
          }}
        />
        <Choice label="Where it is" value={way} options={ways} onChange={(key) => setWay(key as Way)} />
        {way === "network" && (
          <>
            <TextField label="Address" placeholder="192.0.2.20" value={to} onChange={setTo} />
            <NumberField
              label="Port"
              minValue={1}
              maxValue={65535}
              formatOptions={{ useGrouping: false }}
              value={port}
              onChange={setPort}
            />
          </>
        )}
        {way === "port" && (
          <Choice
            label="MIDI port"
            value={to}
            placeholder={ports.length ? "Choose one" : "There is none now"}
            options={ports.map((one) => ({ id: one, text: one }))}
            onChange={(key) => setTo(String(key))}
          />
        )}
      </Grid>
      {problem && <Problem role="alert">{problem.text}</Problem>}
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        {problem?.ask ? (
          <Button onPress={() => void keep(true)}>Agree and keep</Button>
        ) : (
          <Button onPress={() => void keep(false)}>{device ? "Keep" : "Add"}</Button>
        )}
      </Ending>
    </Sheet>
  );
}
