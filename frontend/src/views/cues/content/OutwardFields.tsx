import { useDevices } from "../../../api/devices";
import { Choice } from "../../../ui/Choice";
import { fresh, KINDS, speaks, type Kind, type Message } from "../messages";
import { MessageFields } from "./MessageFields";

const OUTWARD = KINDS.filter((one) => speaks(one.id) !== null);

interface Props {
  message: Message | null;
  onChange: (message: Message | null) => void;
  /** Kinds that can be chosen; else all that go to devices. */
  kinds?: readonly Kind[];
}

/** A message to an outside device: of which kind, to which, and what it says. */
export function OutwardFields({ message, onChange, kinds }: Props) {
  const { data } = useDevices();
  const devices = (data?.devices ?? []).map((one) => ({
    id: one.id,
    speaks: one.document.speaks,
    name: one.name,
  }));
  const able = devices.filter((one) => message && one.speaks === speaks(message.kind));
  return (
    <>
      <Choice
        label="Message"
        value={message?.kind ?? null}
        placeholder="choose"
        options={OUTWARD.filter((one) => !kinds || kinds.includes(one.id))}
        onChange={(key) => onChange(fresh(key as Kind, { devices, lists: [], controls: [] }))}
      />
      {message && "device" in message && (
        <Choice
          label="To"
          value={message.device}
          options={able.map((one) => ({ id: one.id, text: one.name }))}
          onChange={(key) => onChange({ ...message, device: Number(key) })}
        />
      )}
      {message && <MessageFields message={message} lists={[]} controls={[]} onChange={onChange} />}
    </>
  );
}
