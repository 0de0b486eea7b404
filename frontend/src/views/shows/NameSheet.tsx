import { useState } from "react";

import { Button } from "../../ui/Button";
import { Ending, Sheet } from "../../ui/Sheet";
import { TextField } from "../../ui/TextField";

interface Props {
  title: string;
  verb: string;
  name: string;
  onClose: () => void;
  onName: (name: string) => void;
}

/** Asks for the name of a show. */
export function NameSheet({ title, verb, name, onClose, onName }: Props) {
  const [text, setText] = useState(name);
  const well = text.trim().length > 0 && text.length <= 120;
  return (
    <Sheet title={title} isOpen onClose={onClose}>
      <form
        style={{ display: "contents" }}
        onSubmit={(event) => {
          event.preventDefault();
          if (well) onName(text.trim());
        }}
      >
        <TextField label="Name" value={text} onChange={setText} autoFocus maxLength={120} />
        <Ending>
          <Button onPress={onClose}>Cancel</Button>
          <Button type="submit" isDisabled={!well}>
            {verb}
          </Button>
        </Ending>
      </form>
    </Sheet>
  );
}
