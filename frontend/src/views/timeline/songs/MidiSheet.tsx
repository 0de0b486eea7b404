import { useRef, useState } from "react";
import styled from "styled-components";

import { useTimelineEdits, type MidiLook, type Timeline } from "../../../api/timelines";
import { Button, Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Scroller } from "../../../ui/Scroller";
import { Ending, Sheet } from "../../../ui/Sheet";

const Lines = styled(Scroller)`
  width: min(760px, 86vw);
  max-height: 44vh;
  .line {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto 220px;
    gap: 12px;
    align-items: center;
    border-top: 1px solid var(--line);
    padding: 4px 0;
  }
  .count {
    color: var(--quiet);
    font-size: 14px;
  }
`;
const LEFT_OUT = "left out";
const clock = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${(seconds % 60).toFixed(1).padStart(4, "0")}`;

/** Presses as a MIDI file: out, and in from one, line by line onto the tracks of the song. */
export function MidiSheet({ song, onClose }: { song: Timeline; onClose: () => void }) {
  const edits = useTimelineEdits(song.id);
  const chooser = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [look, setLook] = useState<MidiLook | null>(null);
  const [goes, setGoes] = useState<Record<string, string>>({});
  const [replaces, setReplaces] = useState(true);
  const tracks = song.tracks.filter((one) => one.document.kind === "presses");
  const options = [
    { id: LEFT_OUT, text: LEFT_OUT },
    ...tracks.map((one) => ({ id: String(one.id), text: one.document.name })),
  ];
  async function read(chosen: File | undefined) {
    if (!chosen) return;
    const found = await edits.presses(chosen, null, false);
    setFile(found && chosen);
    setLook(found);
    setGoes(
      Object.fromEntries(
        found?.lines.flatMap((one) => (one.track ? [[one.key, String(one.track)]] : [])) ?? [],
      ),
    );
  }
  const wanted = Object.entries(goes).filter(([, track]) => track !== LEFT_OUT);
  const count = (look?.lines ?? []).reduce(
    (sum, one) => sum + (wanted.some(([key]) => key === one.key) ? one.count : 0),
    0,
  );
  return (
    <Sheet title="Presses as MIDI" isOpen onClose={onClose}>
      {look ? (
        <Lines>
          {look.lines.map((one) => (
            <div className="line" key={one.key}>
              <span>{one.name}</span>
              <span className="count">
                {one.count} press{one.count === 1 ? "" : "es"}, {clock(one.first)} to {clock(one.last)}
              </span>
              <Choice
                label={`${one.name} goes onto`}
                hideLabel
                options={options}
                value={goes[one.key] ?? LEFT_OUT}
                onChange={(key) => setGoes({ ...goes, [one.key]: String(key) })}
              />
            </div>
          ))}
          {look.beyond > 0 && <p>{look.beyond} presses are behind the end of the song: they are left out.</p>}
        </Lines>
      ) : (
        <p style={{ maxWidth: "38em" }}>
          Each track of presses becomes a track of notes: C4 for what is held, with its length; C♯4 for on, D4
          for off; tempos and bars are those of the beat grid. Out of a file, each note can go onto a track.
        </p>
      )}
      {!tracks.length && <p>This song has no track of presses yet. Make one with “New track” first.</p>}
      <Ending>
        <input
          ref={chooser}
          type="file"
          hidden
          accept=".mid,.midi"
          aria-label="A MIDI file"
          onChange={(event) => {
            void read(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
        {look && (
          <Toggle isSelected={replaces} onChange={setReplaces}>
            Replace what is on the tracks
          </Toggle>
        )}
        <Button isDisabled={!tracks.length} onPress={() => chooser.current!.click()}>
          {look ? "Another file …" : "Take in a MIDI file …"}
        </Button>
        {!look && (
          <Button
            isDisabled={!tracks.length}
            onPress={() => window.location.assign(`/api/timelines/${song.id}/presses.mid`)}
          >
            Save all presses
          </Button>
        )}
        {look && (
          <Button
            isDisabled={!count}
            onPress={() => void edits.presses(file!, wanted, replaces).then((done) => done && onClose())}
          >
            Take in {count} press{count === 1 ? "" : "es"}
          </Button>
        )}
        <Button onPress={onClose}>Close</Button>
      </Ending>
    </Sheet>
  );
}
