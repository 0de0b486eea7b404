import { useState } from "react";
import styled from "styled-components";

import { Refused } from "../../../api/client";
import { useLists, type CueContent } from "../../../api/cues";
import { useDevices } from "../../../api/devices";
import { usePages } from "../../../api/pages";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { fresh, KINDS, speaks, type Kind, type Message } from "../messages";
import { MessageFields } from "./MessageFields";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 20px;
  width: 560px;
  p {
    grid-column: 1 / 3;
    color: var(--quiet);
  }
`;

const Problem = styled.p`
  border: 1px dashed var(--bone);
  padding: 8px 12px;
  max-width: 560px;
`;

interface Props {
  cue: CueContent;
  message: Message | null;
  onKeep: (message: Message) => Promise<unknown>;
  onClose: () => void;
}

/** A message of a cue: what it is, where it goes, and how long after the one before. */
export function MessageSheet({ cue, message, onKeep, onClose }: Props) {
  const { data: devices } = useDevices();
  const { data: lists } = useLists();
  const controls = usePages().data?.pages.flatMap((page) => page.controls) ?? [];
  const others = (lists ?? []).filter((one) => one.id !== cue.list_id);
  const targets = {
    devices: (devices?.devices ?? []).map((one) => ({ id: one.id, speaks: one.document.speaks })),
    lists: others,
    controls,
  };
  const [kind, setKind] = useState<Kind>(message?.kind ?? "osc");
  const [changed, setChanged] = useState<Message | null>(message);
  const [problem, setProblem] = useState("");
  const now = changed ?? fresh(kind, targets);
  async function keep() {
    if (!now) return;
    try {
      await onKeep(now);
      onClose();
    } catch (error) {
      setProblem(error instanceof Refused ? error.message.replace(`${error.place}: `, "") : String(error));
    }
  }
  if (!devices || !lists) return null;
  return (
    <Sheet title={message ? "Message" : "New message"} isOpen onClose={onClose}>
      <Grid>
        <Choice
          label="Kind"
          value={kind}
          options={KINDS}
          onChange={(key) => {
            setKind(key as Kind);
            setChanged(fresh(key as Kind, targets, now?.wait ?? 0));
          }}
        />
        <NumberField
          label={message && cue.messages[0]?.message !== message ? "After the one before" : "Wait"}
          unit="s"
          minValue={0}
          maxValue={3600}
          step={0.1}
          value={now?.wait ?? 0}
          onChange={(wait) => now && setChanged({ ...now, wait: wait || 0 })}
        />
        {now && "device" in now && (
          <Choice
            label="To"
            value={now.device}
            options={devices.devices
              .filter((one) => one.document.speaks === speaks(now.kind))
              .map((one) => ({ id: one.id, text: one.name }))}
            onChange={(key) => setChanged({ ...now, device: Number(key) })}
          />
        )}
        {now && (
          <MessageFields
            message={now}
            lists={others.map((one) => ({ id: one.id, text: one.name }))}
            controls={controls.map((one) => ({ id: one.id, text: one.name }))}
            onChange={setChanged}
          />
        )}
        {!now && <p>There is nothing that this could go to yet.</p>}
      </Grid>
      {problem && <Problem role="alert">{problem}</Problem>}
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button isDisabled={!now} onPress={() => void keep()}>
          {message ? "Keep" : "Add"}
        </Button>
      </Ending>
    </Sheet>
  );
}
