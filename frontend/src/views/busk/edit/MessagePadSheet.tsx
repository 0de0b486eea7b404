import { useState } from "react";
import styled from "styled-components";

import type { BuskPad } from "../../../api/busk";
import type { Schemas } from "../../../api/client";
import { useDevices } from "../../../api/devices";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { MessageFields } from "../../cues/content/MessageFields";
import { fresh, KINDS, speaks, type Kind, type Message } from "../../cues/messages";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 20px;
  width: 560px;
`;
const OUTWARD = KINDS.filter((one) => speaks(one.id) !== null);

interface Props {
  pad: BuskPad | null;
  onClose: () => void;
  onKeep: (pad: Schemas["PadContent"]) => Promise<unknown>;
}

/** What a pad sends: to which device, and what. */
export function MessagePadSheet({ pad, onClose, onKeep }: Props) {
  const { data } = useDevices();
  const devices = (data?.devices ?? []).map((one) => ({
    id: one.id,
    speaks: one.document.speaks,
    name: one.name,
  }));
  const targets = { devices, lists: [], controls: [] };
  const [name, setName] = useState(pad?.name ?? "");
  const [kind, setKind] = useState<Kind>((pad?.sends?.kind as Kind | undefined) ?? "osc");
  const [changed, setChanged] = useState<Message | null>((pad?.sends as Message | undefined) ?? null);
  const now = changed ?? fresh(kind, targets);
  if (!data) return null;
  async function keep() {
    const message = now as Schemas["PadContent"]["message"];
    if (await onKeep({ name: name.trim(), while_held: false, message })) onClose();
  }
  return (
    <Sheet title={pad ? "Message pad" : "New message pad"} isOpen onClose={onClose}>
      <Grid>
        <TextField label="Name" value={name} onChange={setName} autoFocus />
        <Choice
          label="Kind"
          value={kind}
          options={OUTWARD}
          onChange={(key) => {
            setKind(key as Kind);
            setChanged(fresh(key as Kind, targets));
          }}
        />
        {now && "device" in now && (
          <Choice
            label="To"
            value={now.device}
            options={devices
              .filter((one) => one.speaks === speaks(now.kind))
              .map((one) => ({ id: one.id, text: one.name }))}
            onChange={(key) => setChanged({ ...now, device: Number(key) })}
          />
        )}
        {now && <MessageFields message={now} lists={[]} controls={[]} onChange={setChanged} />}
      </Grid>
      <Ending>
        <Button data-variant="plain" onPress={onClose}>
          Leave it
        </Button>
        <Button isDisabled={!now || !name.trim()} onPress={() => void keep()}>
          {pad ? "Keep" : "Add"}
        </Button>
      </Ending>
    </Sheet>
  );
}
