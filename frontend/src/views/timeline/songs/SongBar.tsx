import { useState } from "react";
import styled from "styled-components";

import { useSongTold, useTimelineEdits, type Song, type Timeline } from "../../../api/timelines";
import { act } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button, Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { desk } from "../../../state";
import { playOrStand, positionNow, useLine } from "../line";
import { markerAt } from "../rows";
import { SNAPS, type Snap } from "../scale";
import { GridSheet } from "./GridSheet";
import { MarkersSheet } from "./MarkersSheet";
import { MidiSheet } from "./MidiSheet";
import { RunningOrderSheet } from "./RunningOrderSheet";
import { SongSheet } from "./SongSheet";
import { TimeSheet } from "./TimeSheet";

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 12px;
  .about {
    flex: 1;
    min-width: 0;
    color: var(--quiet);
    font-size: 14px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .play {
    min-width: 74px;
  }
`;
const HALF = 0.5;

/** Which song, how it is played, and what else is done with it. */
export function SongBar({ song, songs }: { song: Timeline; songs: Song[] }) {
  const told = useSongTold(song.id);
  const edits = useTimelineEdits(song.id);
  const { snap, follows, scrubsOnStage, replaces } = useLine();
  const [open, setOpen] = useState<"song" | "grid" | "markers" | "midi" | "order" | "time" | null>(null);
  const plays = (told?.speed ?? 0) > 0;
  const armed = song.tracks.some((one) => one.document.armed && !one.document.locked);
  const length = song.document.length_s ?? 0;
  const whole = Math.round(length);
  const minutes = `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
  const bpm = song.document.grid?.changes?.[0]?.bpm ?? 120;
  const clock = song.document.clock === "MTC" ? `MTC ${song.document.rate}` : "own clock";
  const about = `${Number(bpm.toFixed(2))} BPM · ${minutes} · ${clock}, from ${song.document.starts_at}`;
  async function record() {
    if (told?.records) {
      act({ do: "record-song", timeline: song.id, on: false });
      const made = await edits.keepRecording(replaces);
      if (made) act({ do: "give-back", subject: null });
    } else act({ do: "record-song", timeline: song.id, on: true });
  }
  function loop() {
    if (told?.loop) return act({ do: "loop-song", timeline: song.id, end: null });
    const part = markerAt(song.markers, positionNow(song.id, length) ?? 0) ?? song.markers[0];
    if (part) act({ do: "loop-song", timeline: song.id, begin: part.at, end: part.at + (part.length ?? 0) });
  }
  /** The part that is looped, else what comes behind the playhead. */
  function bake() {
    const [begin, end] = told?.loop ?? [Math.floor(positionNow(song.id, length) ?? 0), null];
    const seconds = Math.max(0.1, (end ?? Math.min(begin + 10, length)) - begin);
    desk.bake({ kind: "song", number: song.id, name: song.name, begin, seconds });
  }
  function does(id: string) {
    if (id === "leave") act({ do: "leave-song", seconds: 2 });
    else if (id === "back") act({ do: "give-back", subject: null });
    else if (id === "half")
      act({ do: "song-speed", timeline: song.id, speed: told?.chosen === HALF ? 1 : HALF });
    else if (id === "bake") bake();
    else if (id === "follow") useLine.setState({ follows: !follows });
    else if (id === "scrub") useLine.setState({ scrubsOnStage: !scrubsOnStage });
    else if (id === "replace") useLine.setState({ replaces: !replaces });
    else setOpen(id as typeof open);
  }
  const tick = (on: boolean, text: string) => `${on ? "✓ " : ""}${text}`;
  const looped = told?.loop && song.markers.find((one) => Math.abs(one.at - told.loop![0]) < 0.01);
  return (
    <Bar>
      <Choice
        label="Song"
        hideLabel
        value={song.id}
        options={songs.map((one) => ({ id: one.id, text: one.name }))}
        onChange={(key) => useLine.setState({ song: Number(key) })}
      />
      <span className="about" title={about}>
        {about}
      </span>
      <Toggle
        isSelected={told?.records ?? false}
        isDisabled={!armed && !told?.records}
        onChange={() => void record()}
      >
        {told?.records ? "Keep recording" : "Record"}
      </Toggle>
      <Toggle
        className="play"
        isSelected={plays}
        isDisabled={told?.follows && plays}
        onChange={() => playOrStand(song.id)}
      >
        {plays ? (told?.follows ? "Follows" : "Stop") : "Play"}
      </Toggle>
      <Toggle isSelected={!!told?.loop} isDisabled={!song.markers.length} onChange={loop}>
        {looped ? `Loops ${looped.name}` : "Loop"}
      </Toggle>
      <Choice
        label="Snap"
        hideLabel
        value={snap}
        options={SNAPS}
        onChange={(key) => useLine.setState({ snap: key as Snap })}
      />
      {!!told?.hands.length && (
        <Button onPress={() => act({ do: "give-back", subject: null })}>Give all back</Button>
      )}
      <ActionMenu
        label="Song"
        onAction={does}
        actions={[
          { id: "song", text: "Song: length, sound, timecode …" },
          { id: "grid", text: "Beat grid …" },
          { id: "markers", text: "Parts: names, colours, CSV …" },
          { id: "midi", text: "Presses as MIDI …" },
          { id: "bake", text: "Bake a stretch for another system …" },
          { id: "time", text: "Insert or remove time …" },
          { id: "order", text: "Running order, new song …" },
          { id: "half", text: tick(told?.chosen === HALF, "Half speed, for looking") },
          { id: "follow", text: tick(follows, "The line follows the playhead") },
          { id: "scrub", text: tick(scrubsOnStage, "A dragged playhead moves the stage, too") },
          { id: "replace", text: tick(replaces, "Recording replaces what is there") },
          { id: "leave", text: "Take the song off the stage in 2 s", disabled: !told },
        ]}
      />
      {open === "song" && <SongSheet song={song} onClose={() => setOpen(null)} />}
      {open === "grid" && <GridSheet song={song} onClose={() => setOpen(null)} />}
      {open === "markers" && <MarkersSheet song={song} onClose={() => setOpen(null)} />}
      {open === "midi" && <MidiSheet song={song} onClose={() => setOpen(null)} />}
      {open === "time" && <TimeSheet song={song} onClose={() => setOpen(null)} />}
      {open === "order" && <RunningOrderSheet songs={songs} onClose={() => setOpen(null)} />}
    </Bar>
  );
}
