import { useState } from "react";

import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";

interface Props {
  title: string;
  name: string;
  onClose: () => void;
  /** What it answers when it was kept; null: it was refused, and said. */
  onKeep: (name: string) => Promise<unknown>;
}

/** A name, asked for. */
export function NameSheet({ title, name, onClose, onKeep }: Props) {
  const [now, setNow] = useState(name);
  const keep = async () => {
    if (await onKeep(now.trim())) onClose();
  };
  return (
    <Sheet title={title} isOpen onClose={onClose}>
      <TextField
        label="Name"
        value={now}
        onChange={setNow}
        autoFocus
        onKeyDown={(event) => event.key === "Enter" && now.trim() && void keep()}
      />
      <Ending>
        <Button data-variant="plain" onPress={onClose}>
          Leave it
        </Button>
        <Button isDisabled={!now.trim()} onPress={() => void keep()}>
          Keep
        </Button>
      </Ending>
    </Sheet>
  );
}
