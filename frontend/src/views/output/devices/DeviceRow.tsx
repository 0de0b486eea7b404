import styled from "styled-components";

import { deviceEdits, type DeviceView } from "../../../api/devices";
import type { LiveState } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Told, Wrong } from "../Told";
import { deviceWords } from "../words";

const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 16px;
  align-items: start;
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
  h3 {
    font-size: 16px;
    font-weight: 650;
  }
`;

interface Props {
  device: DeviceView;
  state: NonNullable<LiveState["devices"]>[number] | undefined;
  onForm: () => void;
}

/** A device: where it is, what it was sent, and what did not reach it. */
export function DeviceRow({ device, state, onForm }: Props) {
  return (
    <Row aria-label={device.name}>
      <div>
        <h3>{device.name}</h3>
        <p>
          {device.words} ·{" "}
          {device.used
            ? `${device.used} ${device.used === 1 ? "cue sends" : "cues send"} to it`
            : "no cue sends to it"}
        </p>
        {state && <Told>{deviceWords(state)}</Told>}
        {state?.text && <Wrong role="status">{state.text}</Wrong>}
      </div>
      <ActionMenu
        label={device.name}
        onAction={(id) => (id === "form" ? onForm() : void deviceEdits.remove(device.id))}
        actions={[
          { id: "form", text: "Change …" },
          { id: "delete", text: "Delete" },
        ]}
      />
    </Row>
  );
}
