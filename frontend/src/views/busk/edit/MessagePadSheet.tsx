import { useState } from "react";
import styled from "styled-components";

import type { BuskPad } from "../../../api/busk";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { OutwardFields } from "../../cues/content/OutwardFields";
import type { Message } from "../../cues/messages";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 20px;
  width: 560px;
`;

interface Props {
  pad: BuskPad | null;
  onClose: () => void;
  onKeep: (pad: Schemas["PadContent"]) => Promise<unknown>;
}

/** What a pad sends: to which device, and what. */
export function MessagePadSheet({ pad, onClose, onKeep }: Props) {
  const [name, setName] = useState(pad?.name ?? "");
  const [message, setMessage] = useState<Message | null>((pad?.sends as Message | undefined) ?? null);
  async function keep() {
    const sent = message as Schemas["PadContent"]["message"];
    if (await onKeep({ name: name.trim(), while_held: false, message: sent })) onClose();
  }
  return (
    <Sheet title={pad ? "Message pad" : "New message pad"} isOpen onClose={onClose}>
      <Grid>
        <TextField label="Name" value={name} onChange={setName} autoFocus style={{ gridColumn: "1 / 3" }} />
        <OutwardFields message={message} onChange={setMessage} />
      </Grid>
      <Ending>
        <Button data-variant="plain" onPress={onClose}>
          Leave it
        </Button>
        <Button isDisabled={!message || !name.trim()} onPress={() => void keep()}>
          {pad ? "Keep" : "Add"}
        </Button>
      </Ending>
    </Sheet>
  );
}
