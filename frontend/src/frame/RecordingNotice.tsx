import { useState } from "react";

import { actionListEdits } from "../api/actionLists";
import { recording, useRecording } from "../live/recording";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { NameSheet } from "../views/busk/edit/NameSheet";

/** Said on every page while what the hands do is recorded as an action list. */
export function RecordingNotice() {
  const { since, hands } = useRecording();
  const [naming, setNaming] = useState(false);
  if (since === null && !naming) return null;
  return (
    <>
      {since !== null && (
        <Notice role="status">
          Recording what your hands do: {hands.length === 1 ? "1 thing" : `${hands.length} things`} so far.
          <Button
            data-variant="small"
            isDisabled={!hands.length}
            onPress={() => {
              recording.end();
              setNaming(true);
            }}
          >
            Keep as an action list
          </Button>
          <Button data-variant="small" onPress={recording.end}>
            Throw it away
          </Button>
        </Notice>
      )}
      {naming && (
        <NameSheet
          title="Keep as an action list"
          name=""
          onClose={() => setNaming(false)}
          onKeep={(name) => actionListEdits.recorded({ name, hands })}
        />
      )}
    </>
  );
}
