import { useState } from "react";

import { api, take } from "../../../api/client";
import { useEdit } from "../../../api/queries";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";

const KINDS = ["par", "spot", "wash", "beam", "profile", "strobe", "blinder", "haze", "fan"] as const;
/** What a new kind begins with; its page has the rest. */
const FIRST = [
  { source: "intensity", bits: 8 as const, low: 0, high: 100, home: 0 },
  ...["red", "green", "blue"].map((source) => ({ source, bits: 8 as const, low: 0, high: 1, home: 0 })),
];

interface Props {
  onMade: (name: string) => void;
  onClose: () => void;
}

/** A kind that is in no file: what it is called; its channels are put together on its page. */
export function NewKindSheet({ onMade, onClose }: Props) {
  const [model, setModel] = useState("");
  const [kind, setKind] = useState<(typeof KINDS)[number]>("par");
  const make = useEdit(() => take(api.POST("/api/kinds", { body: { model, kind, channels: FIRST } })));
  return (
    <Sheet title="A kind from its channels" isOpen onClose={onClose}>
      <TextField label="What it is called" value={model} onChange={setModel} autoFocus />
      <Choice
        label="It is a"
        options={KINDS.map((id) => ({ id, text: id }))}
        value={kind}
        onChange={(key) => setKind(key as typeof kind)}
      />
      <p style={{ maxWidth: "36em" }}>
        It begins with intensity, red, green and blue. Change its channels, cells and wheels on its page.
      </p>
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button
          isDisabled={!model.trim()}
          onPress={() => make.mutate(undefined, { onSuccess: (made) => onMade(made.name) })}
        >
          Make it
        </Button>
      </Ending>
    </Sheet>
  );
}
