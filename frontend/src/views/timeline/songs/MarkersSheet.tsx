import { Trash2 } from "lucide-react";
import { useRef } from "react";
import styled from "styled-components";

import { useTimelineEdits, type Marker, type Timeline } from "../../../api/timelines";
import { Button } from "../../../ui/Button";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { positionNow } from "../line";
import { PositionField } from "../list/PositionField";
import { useState } from "react";

const Rows = styled.div`
  display: grid;
  gap: 6px;
  width: 700px;
  max-width: 88vw;
  max-height: 50vh;
  overflow: auto;
  > div {
    display: grid;
    grid-template-columns: 120px 130px minmax(0, 1fr) 48px 44px;
    gap: 10px;
    align-items: end;
  }
  input[type="color"] {
    width: 44px;
    height: 40px;
    padding: 2px;
    border: 1px solid var(--edge);
    border-radius: 2px;
    background: transparent;
  }
`;

/** The parts of a song: where each begins, how long it is, what it is called. */
export function MarkersSheet({ song, onClose }: { song: Timeline; onClose: () => void }) {
  const edits = useTimelineEdits(song.id);
  const file = useRef<HTMLInputElement>(null);
  const length = song.document.length_s ?? 0;
  async function save() {
    const { text } = await edits.markersText();
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([text], { type: "text/csv" }));
    link.download = `${song.name} parts.csv`;
    link.click();
    URL.revokeObjectURL(link.href);
  }
  async function read(files: FileList | null) {
    if (files?.length) await edits.readMarkers(await files[0]!.text());
    if (file.current) file.current.value = "";
  }
  const here = () => positionNow(song.id, length) ?? 0;
  return (
    <Sheet title="Parts" isOpen onClose={onClose}>
      <Rows>
        {song.markers.map((one) => (
          <Line key={one.id} song={song} marker={one} />
        ))}
      </Rows>
      <Ending>
        <input
          ref={file}
          type="file"
          hidden
          accept=".csv,.txt,.tsv"
          aria-label="CSV file"
          onChange={(event) => void read(event.target.files)}
        />
        <Button onPress={() => file.current?.click()}>Read CSV …</Button>
        <Button onPress={() => void save()}>Save CSV</Button>
        <Button
          onPress={() =>
            void edits.addMarker({
              at: here(),
              length: Math.min(8, length - here()),
              name: `part ${song.markers.length + 1}`,
              colour: "",
            })
          }
        >
          New at the playhead
        </Button>
        <Button onPress={onClose}>Close</Button>
      </Ending>
    </Sheet>
  );
}

function Line({ song, marker }: { song: Timeline; marker: Marker }) {
  const edits = useTimelineEdits(song.id);
  const [name, setName] = useState<string | null>(null);
  const { id, ...document } = marker;
  const change = (part: Partial<typeof document>) => void edits.changeMarker(id, { ...document, ...part });
  return (
    <div>
      <PositionField
        label="From"
        value={marker.at}
        rate={song.document.rate ?? "25"}
        onChange={(at) => change({ at })}
      />
      <NumberField
        label="Length"
        unit="s"
        minValue={0}
        value={Number((marker.length ?? 0).toFixed(2))}
        onChange={(length) => Number.isFinite(length) && change({ length })}
      />
      <TextField
        label="Name"
        value={name ?? marker.name}
        onChange={setName}
        onBlur={() => {
          if (name?.trim()) change({ name });
          setName(null);
        }}
      />
      <input
        type="color"
        aria-label={`Colour of ${marker.name}`}
        defaultValue={marker.colour || "#867c6f"}
        onBlur={(event) => event.target.value !== marker.colour && change({ colour: event.target.value })}
      />
      <Button
        data-variant="plain"
        aria-label={`Delete ${marker.name}`}
        onPress={() => void edits.removeMarker(id)}
      >
        <Trash2 size={16} aria-hidden="true" />
      </Button>
    </div>
  );
}
