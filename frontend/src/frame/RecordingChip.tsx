import { recordings } from "../api/recordings";
import { act, useLivePart } from "../live/socket";
import { clock } from "../views/output/recordings/recordingWords";
import { Chip } from "./Chip";

/** A recording that plays over everything, and one that is being made. */
export function RecordingChip() {
  const playing = useLivePart((state) => state?.recorded ?? null);
  const recorder = useLivePart((state) => (state?.recorder?.name ? state.recorder : null));
  return (
    <>
      {playing && (
        <Chip
          name={playing.name}
          from={`recording · ${clock(playing.position)} of ${clock(playing.seconds)}${playing.loops ? ", round and round" : ""}`}
          isFading={false}
          stop={{
            label: `Take the recording ${playing.name} out`,
            does: () => act({ do: "play-recording", name: "", seconds: 0, loops: false }),
          }}
        />
      )}
      {recorder && (
        <Chip
          name={`Recording ${recorder.name}`}
          from={`what is sent · ${clock(recorder.seconds)}`}
          isFading={false}
          stop={{ label: `End the recording ${recorder.name}`, does: () => void recordings.end() }}
        />
      )}
    </>
  );
}
