import { Refused } from "../../../api/client";
import { useTimelineEdits, type Timeline, type Track } from "../../../api/timelines";
import type { Message } from "../../cues/messages";
import { MessageSheet } from "../../cues/content/MessageSheet";
import { line, useLine } from "../line";

interface Props {
  track: Track;
  message: Message | null;
  /** Null: it was refused, which was told. */
  onKeep: (message: Message) => Promise<unknown>;
  onClose: () => void;
}

/** What an event of a track of messages says to its device. */
export function TrackMessage({ track, message, onKeep, onClose }: Props) {
  return (
    <MessageSheet
      message={message}
      isFirst
      device={Number(track.document.drives.split(":")[1])}
      onKeep={async (now) => {
        if ((await onKeep(now)) === null) throw new Refused("That was refused: it says why below.");
      }}
      onClose={onClose}
    />
  );
}

/** A message that is being put on a track. */
export function NewMessage({ song }: { song: Timeline }) {
  const edits = useTimelineEdits(song.id);
  const adding = useLine((state) => state.adding);
  const track = song.tracks.find((one) => one.id === adding?.track);
  if (!adding || !track) return null;
  return (
    <TrackMessage
      track={track}
      message={null}
      onKeep={async (message) => {
        const events = await edits.addEvents({
          events: [{ track_id: track.id, at: adding.at, length: 0, document: { message } }],
        });
        if (events) line.choose(events.map((one) => one.id));
        return events;
      }}
      onClose={() => useLine.setState({ adding: null })}
    />
  );
}
