import { useState } from "react";

import { pixelEdits, type Canvas } from "../../../api/pixels";
import { useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";
import { CanvasFields } from "./CanvasFields";

interface Props {
  isOpen: boolean;
  onClose: () => void;
  onMade: (map: number) => void;
}

/** A new pixel map from the selection, or of everything. */
export function NewMapSheet({ isOpen, onClose, onMade }: Props) {
  const selection = useDesk((state) => state.selection);
  const [name, setName] = useState("");
  const [everything, setEverything] = useState(false);
  const [canvas, setCanvas] = useState<Canvas>({ kind: "stage", view: "front" });
  const all = everything || !selection.length;
  async function make() {
    const made = await pixelEdits.make({
      name: name.trim() || "Pixels",
      canvas: { ...canvas, heads: all ? [] : selection, everything: all },
      figure: "flames",
    });
    if (made) {
      onMade(made.map.id);
      onClose();
    }
  }
  return (
    <Sheet title="New pixel map" isOpen={isOpen} onClose={onClose}>
      <TextField label="Name" autoFocus value={name} onChange={setName} placeholder="Pixels" />
      <Tick isSelected={all} isDisabled={!selection.length} onChange={setEverything}>
        All lights that lie under it
        {selection.length ? "" : " (nothing is selected)"}
      </Tick>
      {!all && <p>{selection.length} selected lights, in their order.</p>}
      <CanvasFields canvas={canvas} onChange={setCanvas} />
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button onPress={() => void make()}>Make it, with a picture on it</Button>
      </Ending>
    </Sheet>
  );
}
