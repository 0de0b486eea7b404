import { useState } from "react";

import { showEdits } from "../../api/shows";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Ending, Sheet } from "../../ui/Sheet";
import { TextField } from "../../ui/TextField";

const BEGINNINGS = [
  { id: "empty", text: "empty: I patch it myself" },
  { id: "pars", text: "with 8 pars" },
  { id: "club", text: "with a small club: spots, washes, bars" },
  { id: "stage", text: "with a stage: spots, washes, beams, a wall" },
  { id: "demo", text: "as the demo “Salt Light”" },
] as const;
type Begin = (typeof BEGINNINGS)[number]["id"];

interface Props {
  onClose: () => void;
  onMade: (id: string) => void;
}

/** Makes a show: its name, and what it begins with. */
export function NewShowSheet({ onClose, onMade }: Props) {
  const [name, setName] = useState("");
  const [begin, setBegin] = useState<Begin>("empty");
  const [making, setMaking] = useState(false);
  async function make() {
    setMaking(true);
    const made = await showEdits.make({ name: name.trim(), begin });
    setMaking(false);
    if (made) onMade(made.id);
  }
  return (
    <Sheet title="New show" isOpen onClose={onClose}>
      <form
        style={{ display: "contents" }}
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <TextField label="Name" value={name} onChange={setName} autoFocus maxLength={120} />
        <Choice
          label="It begins"
          value={begin}
          options={BEGINNINGS.map((one) => ({ ...one }))}
          onChange={(key) => setBegin(key as Begin)}
        />
        {making && begin === "demo" && <p>Its songs are being synthesised: this takes some seconds.</p>}
        <Ending>
          <Button onPress={onClose}>Cancel</Button>
          <Button type="submit" isDisabled={!name.trim() || making}>
            {making ? "Making it…" : "Make it"}
          </Button>
        </Ending>
      </form>
    </Sheet>
  );
}
