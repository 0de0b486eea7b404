import { useState } from "react";
import styled from "styled-components";

import { useDevices, type DeviceView } from "../../../api/devices";
import { useLivePart } from "../../../live/socket";
import { Button } from "../../../ui/Button";
import { Split } from "../Split";
import { DeviceRow } from "./DeviceRow";
import { DeviceSheet } from "./DeviceSheet";
import { SimulatedDevices } from "./SimulatedDevices";

const Head = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 20px;
  p {
    color: var(--quiet);
  }
`;
const List = styled.ul`
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
`;

/** Outside devices that cues send messages to, and what the simulated ones got. */
export function DevicesPanel() {
  const { data } = useDevices(true);
  const states = useLivePart((state) => state?.devices ?? []);
  const [formed, setFormed] = useState<DeviceView | "new" | null>(null);
  if (!data) return null;
  return (
    <Split>
      <section aria-label="Devices">
        <Head>
          <p>Cues send messages to these. What does not arrive is told here, and never holds up the light.</p>
          <Button onPress={() => setFormed("new")}>Add a device …</Button>
        </Head>
        <List aria-label="Devices">
          {data.devices.map((device) => (
            <DeviceRow
              key={device.id}
              device={device}
              state={states.find((one) => one.id === device.id)}
              onForm={() => setFormed(device)}
            />
          ))}
        </List>
        {!data.devices.length && <p>No device: add one, then choose it in a message of a cue.</p>}
      </section>
      <SimulatedDevices devices={data.simulated} />
      {formed && (
        <DeviceSheet
          device={formed === "new" ? null : formed}
          ports={data.midi_ports}
          onClose={() => setFormed(null)}
        />
      )}
    </Split>
  );
}
