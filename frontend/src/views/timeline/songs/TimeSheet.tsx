import { useState } from "react";

import { useTimelineEdits, type Timeline } from "../../../api/timelines";
import { Button } from "../../../ui/Button";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { positionNow } from "../line";
import { PositionField } from "../list/PositionField";

/** Put time into a song, or take it out: all that follows moves along. */
export function TimeSheet({ song, onClose }: { song: Timeline; onClose: () => void }) {
  const edits = useTimelineEdits(song.id);
  const [at, setAt] = useState(() => positionNow(song.id, song.document.length_s ?? 0) ?? 0);
  const [seconds, setSeconds] = useState(4);
  const change = async (by: number) => {
    if (await edits.time({ at, seconds: by })) onClose();
  };
  return (
    <Sheet title="Insert or remove time" isOpen onClose={onClose}>
      <PositionField label="At" value={at} rate={song.document.rate ?? "25"} onChange={setAt} />
      <NumberField
        label="Time"
        unit="s"
        minValue={0.01}
        maxValue={3600}
        value={seconds}
        onChange={setSeconds}
      />
      <p>Events and parts behind it move along. What lies in time that is removed goes with it.</p>
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button onPress={() => void change(-seconds)}>Remove</Button>
        <Button onPress={() => void change(seconds)}>Insert</Button>
      </Ending>
    </Sheet>
  );
}
