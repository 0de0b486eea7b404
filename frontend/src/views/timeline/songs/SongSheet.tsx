import { useRef, useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useTimelineEdits, type Timeline } from "../../../api/timelines";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";
import { MeasureLateness } from "./MeasureLateness";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 20px;
  width: 640px;
  max-width: 86vw;
  .wide {
    grid-column: 1 / 3;
  }
  .sound {
    display: flex;
    gap: 10px;
    align-items: center;
    span {
      flex: 1;
      color: var(--quiet);
    }
  }
`;
type Document = Schemas["TimelineDocument"];
const RATES = ["24", "25", "29.97", "29.97 drop", "30"];

/** All that a song is beside its tracks: length, sound, timecode, and how it behaves. */
export function SongSheet({ song, onClose }: { song: Timeline; onClose: () => void }) {
  const edits = useTimelineEdits(song.id);
  const [name, setName] = useState(song.name);
  const [now, setNow] = useState<Document>(song.document);
  const [sends, setSends] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const change = (part: Partial<Document>) => setNow((before) => ({ ...before, ...part }));
  const sound = song.document.sound;
  async function take(files: FileList | null) {
    if (!files?.length) return;
    setSends(true);
    const done = await edits.putSound(files[0]!);
    setSends(false);
    if (done) onClose();
  }
  async function keep() {
    if (await edits.change({ name, document: { ...now, sound: song.document.sound ?? null } })) onClose();
  }
  return (
    <Sheet title="Song" isOpen onClose={onClose}>
      <Grid>
        <TextField label="Name" value={name} onChange={setName} />
        <NumberField
          label="Length"
          unit="s"
          minValue={1}
          maxValue={14400}
          value={now.length_s ?? 180}
          onChange={(length_s) => change({ length_s })}
        />
        <div className="wide sound">
          <span>
            {sends
              ? "The sound is being taken in …"
              : sound
                ? `${sound.name} · ${sound.seconds.toFixed(1)} s${sound.silent ? " · silent" : ""}${song.sound_is_there ? "" : " · its file is missing here"}`
                : "No sound: a WAV, FLAC, OGG or MP3 file."}
          </span>
          <input
            ref={file}
            type="file"
            hidden
            accept=".wav,.flac,.ogg,.mp3,audio/*"
            aria-label="Sound file"
            onChange={(event) => void take(event.target.files)}
          />
          <Button data-variant="small" isDisabled={sends} onPress={() => file.current?.click()}>
            {sound ? "Another file …" : "Choose a file …"}
          </Button>
          {sound && (
            <Button data-variant="small" onPress={() => void edits.removeSound().then(onClose)}>
              Take it off
            </Button>
          )}
        </div>
        <Choice
          label="Clock"
          value={now.clock ?? "own"}
          options={[
            { id: "own", text: "its own: plays when it is told" },
            { id: "MTC", text: "MTC: follows incoming timecode" },
          ]}
          onChange={(key) => change({ clock: key as Document["clock"] })}
        />
        <Choice
          label="Frames a second"
          value={now.rate ?? "25"}
          options={RATES.map((one) => ({ id: one, text: one }))}
          onChange={(key) => change({ rate: key as Document["rate"] })}
        />
        <TextField
          label="Timecode at its beginning"
          value={now.starts_at ?? ""}
          onChange={(starts_at) => change({ starts_at })}
        />
        <NumberField
          label="Recorded presses come earlier by"
          unit="ms"
          minValue={-1000}
          maxValue={1000}
          value={Math.round((now.latency_s ?? 0) * 1000) || 0}
          onChange={(ms) => change({ latency_s: ms / 1000 })}
        />
        <div className="wide">
          <MeasureLateness
            song={song}
            onMeasured={(late) => change({ latency_s: Math.round(late * 1000) / 1000 })}
          />
        </div>
        <Choice
          label="When timecode stops for 2 s"
          isDisabled={now.clock !== "MTC"}
          value={now.on_stop ?? "stands"}
          options={[
            { id: "stands", text: "the song stands" },
            { id: "goes on", text: "the song goes on by itself" },
          ]}
          onChange={(key) => change({ on_stop: key as Document["on_stop"] })}
        />
        <Choice
          label="When timecode jumps"
          isDisabled={now.clock !== "MTC"}
          value={now.on_jump ?? "goes there"}
          options={[
            { id: "goes there", text: "the song goes there" },
            { id: "goes on", text: "the song goes on where it is" },
          ]}
          onChange={(key) => change({ on_jump: key as Document["on_jump"] })}
        />
        <Tick isSelected={now.begins_alone ?? true} onChange={(begins_alone) => change({ begins_alone })}>
          Everything else goes out as it begins
        </Tick>
        <Tick isSelected={now.keeps_moving ?? true} onChange={(keeps_moving) => change({ keeps_moving })}>
          Effects keep moving while it stands
        </Tick>
      </Grid>
      <Ending>
        <Button onPress={() => void edits.remove().then(onClose)}>Delete the song</Button>
        <Button onPress={onClose}>Cancel</Button>
        <Button onPress={() => void keep()}>Keep</Button>
      </Ending>
    </Sheet>
  );
}
