import { useState } from "react";
import styled from "styled-components";

import { Refused } from "../../../api/client";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { fresh, isInward, KINDS, speaks, type Kind, type Message } from "../messages";
import { InwardFields } from "./InwardFields";
import { MessageFields } from "./MessageFields";
import { useMessageTargets } from "./useMessageTargets";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 20px;
  width: 560px;
`;
const Problem = styled.p`
  border: 1px dashed var(--edge);
  padding: 8px 12px;
`;

interface Props {
  message: Message | null;
  /** Whether nothing comes before it. */
  isFirst: boolean;
  /** The cue list that it is of: it does not go to that. */
  ownList?: number;
  /** It goes to this one alone, without waiting. */
  device?: number;
  /** Refused is thrown. */
  onKeep: (message: Message) => Promise<unknown>;
  onClose: () => void;
}

/** A message of a cue, or a step of an action list: what it is, where it goes, and how long after the one before. */
export function MessageSheet({ message, isFirst, ownList, device, onKeep, onClose }: Props) {
  const all = useMessageTargets(ownList);
  const own = all?.devices.find((one) => one.id === device);
  const kinds = own ? KINDS.filter((one) => speaks(one.id) === own.speaks) : KINDS;
  const [chosen, setKind] = useState<Kind | null>(message?.kind ?? null);
  const kind = chosen ?? kinds[0]!.id;
  const [changed, setChanged] = useState<Message | null>(message);
  const [problem, setProblem] = useState("");
  if (!all) return null;
  const targets = own ? { ...all, devices: [own] } : all;
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
  return (
    <Sheet title={message ? "Message" : "New message"} isOpen onClose={onClose}>
      <Grid>
        <Choice
          label="Kind"
          value={kind}
          options={kinds}
          onChange={(key) => {
            setKind(key as Kind);
            setChanged(fresh(key as Kind, targets, now?.wait ?? 0));
          }}
        />
        {!own && (
          <NumberField
            label={isFirst ? "Wait" : "After the one before"}
            unit="s"
            minValue={0}
            maxValue={3600}
            step={0.01}
            value={now?.wait ?? 0}
            onChange={(wait) => now && setChanged({ ...now, wait: wait || 0 })}
          />
        )}
        {now && "device" in now && (
          <Choice
            label="To"
            value={now.device}
            options={targets.devices.filter((one) => one.speaks === speaks(now.kind))}
            onChange={(key) => setChanged({ ...now, device: Number(key) })}
          />
        )}
        {now &&
          (isInward(now) ? (
            <InwardFields message={now} options={targets.options} onChange={setChanged} />
          ) : (
            <MessageFields
              message={now}
              lists={targets.lists}
              controls={targets.controls}
              onChange={setChanged}
            />
          ))}
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
