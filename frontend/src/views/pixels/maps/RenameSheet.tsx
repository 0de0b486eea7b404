import { useState } from "react";

import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";

interface Props {
  title?: string;
  name: string;
  onName: (name: string) => void;
  onClose: () => void;
}

/** A name to be typed. */
export function RenameSheet({ title = "Rename it", name, onName, onClose }: Props) {
  const [typed, setTyped] = useState(name);
  const keep = () => {
    onName(typed.trim());
    onClose();
  };
  return (
    <Sheet title={title} isOpen onClose={onClose}>
      <TextField
        label="Name"
        autoFocus
        value={typed}
        onChange={setTyped}
        onKeyDown={(event) => event.key === "Enter" && typed.trim() && keep()}
      />
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button isDisabled={!typed.trim()} onPress={keep}>
          Keep this name
        </Button>
      </Ending>
    </Sheet>
  );
}
