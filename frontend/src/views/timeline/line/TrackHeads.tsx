import {
  Circle,
  Layers,
  ListOrdered,
  MonitorPlay,
  SlidersVertical,
  Square,
  VolumeX,
  Zap,
} from "lucide-react";
import styled from "styled-components";

import { useSongTold, useTimelineEdits, type Timeline, type Track } from "../../../api/timelines";
import { act } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button } from "../../../ui/Button";
import { SmallToggle } from "../../../ui/SmallToggle";
import { positionNow } from "../line";
import { KIND_TITLES, type Row } from "../rows";
import { useNewEvent } from "./newEvent";
import { useHeldSubjects } from "../useHeldSubjects";

const Column = styled.div`
  border-right: 1px solid var(--line);
`;
const Heading = styled.h3`
  font-size: 13px;
  font-weight: 400;
  color: var(--quiet);
  padding: 3px 12px 0;
  border-bottom: 1px solid var(--line);
`;
const One = styled.section`
  display: grid;
  grid-template-columns: 15px minmax(0, 1fr) auto;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding-left: 8px;
  gap: 6px;
  overflow: hidden;
  h4 {
    margin: 0;
    font-size: 14px;
    font-weight: 400;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    line-height: 1.15;
  }
  small {
    color: var(--quiet);
    font-size: 12px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    display: block;
  }
  .tools {
    display: flex;
    height: 100%;
    align-items: center;
  }
  .tools > button {
    width: 24px;
    height: 34px;
    display: grid;
    place-items: center;
  }
  .tools [data-variant="plain"] {
    min-width: 24px;
    width: 24px;
    min-height: 34px;
    padding: 0;
  }
  .yours {
    min-height: 30px;
    padding: 0 8px;
    font-size: 13px;
    margin-right: 4px;
  }
  &[data-muted] h4 {
    color: var(--quiet);
    text-decoration: line-through;
  }
`;

/** The names of tracks, what each is for, and whether it is locked, mute or armed. */
export function TrackHeads({ song, rows }: { song: Timeline; rows: Row[] }) {
  const held = useHeldSubjects(song.id);
  const told = useSongTold(song.id);
  return (
    <Column>
      {rows.map((row) =>
        row.track ? (
          <Head
            key={row.track.id}
            track={row.track}
            song={song}
            height={row.height}
            held={held(row.track)}
            records={told?.records ?? false}
          />
        ) : (
          <Heading key={row.heading} style={{ height: row.height }}>
            {row.heading}
          </Heading>
        ),
      )}
    </Column>
  );
}

interface Props {
  track: Track;
  song: Timeline;
  height: number;
  held: string | null;
  records: boolean;
}

/** A small picture of what a track drives, by the kind of its subject. */
const PICTURES: Record<string, typeof Square> = {
  list: ListOrdered,
  "list-level": SlidersVertical,
  control: SlidersVertical,
  "row-level": SlidersVertical,
  "row-depth": SlidersVertical,
  pad: Square,
  flash: Zap,
  overlay: Layers,
  device: MonitorPlay,
};

function Head({ track, song, height, held, records }: Props) {
  const edits = useTimelineEdits(song.id);
  const { document } = track;
  const change = (part: Partial<typeof document>) =>
    void edits.changeTrack(track.id, { ...document, ...part });
  const putEvent = useNewEvent(song);
  const Picture =
    document.kind === "presses" && document.drives.startsWith("control:")
      ? Square
      : (PICTURES[document.drives.split(":")[0]!] ?? Square);
  const order = song.tracks.map((one) => one.id);
  const place = order.indexOf(track.id);
  const state = !track.drives
    ? "what it drives is gone"
    : [
        KIND_TITLES[document.kind],
        document.armed && (records ? "recording" : "armed"),
        document.locked && "locked",
        document.muted && "mute",
      ]
        .filter(Boolean)
        .join(" · ");
  function does(id: string) {
    if (id === "put") putEvent(track, positionNow(song.id, song.document.length_s ?? 0) ?? 0);
    else if (id === "lock") change({ locked: !document.locked });
    else if (id === "delete") void edits.removeTrack(track.id);
    else {
      const to = place + (id === "up" ? -1 : 1);
      const moved = [...order];
      [moved[place], moved[to]] = [moved[to]!, moved[place]!];
      void edits.orderTracks(moved);
    }
  }
  return (
    <One style={{ height }} data-muted={document.muted || undefined} aria-label={`Track ${document.name}`}>
      <Picture size={15} aria-hidden="true" />
      <div>
        <h4 title={document.name}>{document.name}</h4>
        <small title={held ? "yours: the song waits" : state}>{held ? "yours: it waits" : state}</small>
      </div>
      {held ? (
        <Button className="yours" onPress={() => act({ do: "give-back", subject: held })}>
          Give back
        </Button>
      ) : (
        <div className="tools">
          <SmallToggle
            aria-label={`Arm ${document.name}`}
            isSelected={document.armed ?? false}
            isDisabled={document.locked ?? false}
            onChange={(armed) => change({ armed })}
          >
            <Circle size={13} aria-hidden="true" />
          </SmallToggle>
          <SmallToggle
            aria-label={`Mute ${document.name}`}
            isSelected={document.muted ?? false}
            onChange={(muted) => change({ muted })}
          >
            <VolumeX size={14} aria-hidden="true" />
          </SmallToggle>
          <ActionMenu
            label={document.name}
            onAction={does}
            actions={[
              { id: "put", text: "Put an event at the playhead", disabled: document.locked },
              { id: "lock", text: document.locked ? "Unlock" : "Lock: nothing is recorded or moved" },
              { id: "up", text: "Move up", disabled: place === 0 },
              { id: "down", text: "Move down", disabled: place === order.length - 1 },
              { id: "delete", text: "Delete, with what is on it" },
            ]}
          />
        </div>
      )}
    </One>
  );
}
