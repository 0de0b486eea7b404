import styled from "styled-components";

import { deviceEdits, type SimulatedDevice } from "../../../api/devices";
import { Button, Toggle } from "../../../ui/Button";
import { Table, type TableColumn } from "../../../ui/Table";

const One = styled.section`
  padding-bottom: 18px;
  & + & {
    border-top: 1px solid var(--line);
    padding-top: 12px;
  }
  header {
    display: flex;
    align-items: center;
    gap: 12px;
  }
  h2 {
    flex: 1;
    font-size: 17px;
  }
  > p {
    color: var(--quiet);
    padding: 2px 0 8px;
  }
`;
const Got = styled.div`
  max-height: 230px;
  overflow: auto;
`;
type Row = SimulatedDevice["received"][number];
const clock = new Intl.DateTimeFormat("en-GB", {
  hour: "2-digit",
  minute: "2-digit",
  second: "2-digit",
  fractionalSecondDigits: 2,
});
const COLUMNS: TableColumn<Row>[] = [
  { id: "at", title: "Came at", text: (row) => clock.format(row.at * 1000) },
  { id: "words", title: "What it got", text: (row) => row.words },
];

/** The simulated devices on this machine: what each got, and when. */
export function SimulatedDevices({ devices }: { devices: SimulatedDevice[] }) {
  if (!devices.length) return <p>The simulated devices do not run. Start Zarabanda without --no-node.</p>;
  return (
    <div>
      {devices.map((device) => (
        <One key={device.speaks} aria-label={`Simulated ${device.name.toLowerCase()}`}>
          <header>
            <h2>{device.name}, simulated</h2>
            <Toggle
              data-variant="small"
              aria-label={`Unplug the ${device.name.toLowerCase()}`}
              isSelected={device.vanished}
              onChange={(gone) => void deviceEdits.unplug(device.speaks, gone)}
            >
              {device.vanished ? "Unplugged" : "Unplug it"}
            </Toggle>
          </header>
          <p>
            A stand-in that hears {device.speaks} at {device.host}:{device.port}:{" "}
            {device.count.toLocaleString("en")} {device.count === 1 ? "message" : "messages"} so far.
            {device.bad > 0 && ` ${device.bad} could not be read: ${device.last_bad}.`}
          </p>
          <Got>
            <Table
              label={`What the ${device.name.toLowerCase()} got`}
              columns={COLUMNS}
              rows={device.received}
              rowKey={(row) => `${row.at} ${row.words}`}
              empty={
                device.vanished ? "It is unplugged." : "Nothing yet. Go to a cue that sends something to it."
              }
            />
          </Got>
        </One>
      ))}
      <Button data-variant="plain" onPress={() => void deviceEdits.forget()}>
        Forget what they got
      </Button>
    </div>
  );
}
