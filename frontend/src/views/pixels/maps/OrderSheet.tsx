import { useState } from "react";

import type { Canvas, MapEdits, PixelMap } from "../../../api/pixels";
import { act } from "../../../live/socket";
import { useDesk } from "../../../state";
import { Button, Toggle } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";
import { CanvasFields } from "./CanvasFields";

interface Props {
  map: PixelMap;
  edits: MapEdits;
  isOpen: boolean;
  onClose: () => void;
}

/** Which cells a map has, how they lie, and in which order they are. */
export function OrderSheet({ map, edits, isOpen, onClose }: Props) {
  const selection = useDesk((state) => state.selection);
  const [canvas, setCanvas] = useState<Canvas>(map.document.canvas as Canvas);
  const [runs, setRuns] = useState(false);
  const heads = canvas.heads ?? [];
  function run(on: boolean) {
    setRuns(on);
    act(
      on
        ? { do: "highlight", steps: heads.map((one) => [one]), tempo: "Movement" }
        : { do: "highlight", steps: [] },
    );
  }
  function close() {
    if (runs) run(false);
    onClose();
  }
  return (
    <Sheet title={`Cells of ${map.name}`} isOpen={isOpen} onClose={close}>
      <p>
        {canvas.everything
          ? "All lights that lie under it"
          : `${heads.length.toLocaleString("en")} cells, in their order`}
        . Numbers are written on the canvas.
      </p>
      <CanvasFields canvas={canvas} onChange={setCanvas} />
      <Ending>
        <Button
          data-variant="small"
          isDisabled={!selection.length}
          onPress={() => setCanvas({ ...canvas, heads: selection, everything: false })}
        >
          Take the {selection.length} selected lights
        </Button>
        <Button
          data-variant="small"
          isDisabled={heads.length < 2}
          onPress={() => setCanvas({ ...canvas, heads: [...heads].reverse() })}
        >
          Reverse the order
        </Button>
        <Toggle data-variant="small" isDisabled={!heads.length} isSelected={runs} onChange={run}>
          Run through them in tempo
        </Toggle>
      </Ending>
      <p>A fixture that hangs the other way round is turned in the Rig view, by its order of cells.</p>
      <Ending>
        <Button onPress={close}>Cancel</Button>
        <Button onPress={() => void edits.change({ canvas }).then((done) => done && close())}>
          Use these cells
        </Button>
      </Ending>
    </Sheet>
  );
}
