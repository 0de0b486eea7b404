import { useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useTimelineEdits, type Timeline, type TimelineEvent } from "../../../api/timelines";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { ShareField } from "../../../ui/ShareField";
import { Tick } from "../../../ui/Tick";
import { line } from "../line";
import { valueOf } from "../rows";
import { barAndBeat } from "../scale";
import type { Message } from "../../cues/messages";
import { TrackMessage } from "./TrackMessage";
import { PositionField } from "./PositionField";

const Frame = styled.section`
  border-top: 1px solid var(--edge);
  padding: 10px 12px 12px;
  display: grid;
  gap: 8px;
  align-content: start;
  h3 {
    display: flex;
    gap: 8px;
    align-items: baseline;
    small {
      color: var(--quiet);
      font-weight: 400;
    }
  }
  p {
    color: var(--quiet);
  }
`;
const Row = styled.div`
  display: flex;
  gap: 8px;
  align-items: end;
  flex-wrap: wrap;
  output {
    font: 14px var(--numbers);
    color: var(--quiet);
    padding-bottom: 10px;
  }
`;

interface Props {
  song: Timeline;
  chosen: TimelineEvent[];
}

/** What is chosen, to be typed: one thing at a time, and it says which. */
export function EventPanel({ song, chosen }: Props) {
  const edits = useTimelineEdits(song.id);
  const ids = chosen.map((one) => one.id);
  if (!chosen.length)
    return (
      <Frame aria-label="Chosen events">
        <p>
          Choose an event on the line or in the list. Drag it, move it by a frame with the arrow keys, or type
          where it is to be.
        </p>
      </Frame>
    );
  const one = chosen.length === 1 ? chosen[0]! : null;
  const quantise = (unit: Schemas["QuantiseEvents"]["unit"], strength = 1) =>
    void edits.quantise({ events: ids, unit, strength });
  return (
    <Frame aria-label="Chosen events">
      {one ? <OneEvent song={song} event={one} /> : <h3>{chosen.length} events chosen</h3>}
      <Row>
        <Button data-variant="small" onPress={() => quantise("beat")}>
          On the beat
        </Button>
        <Button data-variant="small" onPress={() => quantise("beat", 0.5)}>
          Halfway
        </Button>
        <Button data-variant="small" onPress={() => quantise("bar")}>
          On the bar
        </Button>
      </Row>
      <Row>
        <Button
          data-variant="small"
          onPress={() => {
            void edits.copy(ids, null).then((made) => made && line.choose(made.map((two) => two.id)));
          }}
        >
          Copy to the next part
        </Button>
        <Button
          data-variant="small"
          onPress={() => {
            void edits.removeEvents(ids);
            line.choose([]);
          }}
        >
          Delete
        </Button>
      </Row>
    </Frame>
  );
}

function OneEvent({ song, event }: { song: Timeline; event: TimelineEvent }) {
  const edits = useTimelineEdits(song.id);
  const track = song.tracks.find((one) => one.id === event.track_id);
  const rate = song.document.rate ?? "25";
  const [open, setOpen] = useState(false);
  if (!track) return null;
  const { kind } = track.document;
  const change = (part: Partial<Schemas["EventChange"]>, words: string) =>
    void edits.changeEvents([{ id: event.id, ...part }], words);
  const bar = barAndBeat(event.at, song);
  const does = (event.document as { does?: string }).does ?? "hold";
  const { message } = event.document as { message?: Message };
  return (
    <>
      <h3>
        {kind === "cues" ? `Cue ${event.what} · ${event.words}` : event.words || track.document.name}
        <small>on {track.document.name}</small>
      </h3>
      {event.gone && <p>What it is on is gone, so it does nothing. It plays again when that comes back.</p>}
      <Row>
        <PositionField
          label="At"
          value={event.at}
          rate={rate}
          onChange={(at) => change({ at }, "Move 1 event")}
        />
        {bar && (
          <output>
            bar {bar[0]}.{bar[1]}
          </output>
        )}
        {kind === "presses" && does === "hold" && (
          <NumberField
            label="Length"
            unit="s"
            minValue={0}
            maxValue={song.document.length_s}
            step={0.01}
            value={event.length}
            onChange={(length) => Number.isFinite(length) && change({ length }, "Change a length")}
          />
        )}
        {kind === "levels" && (
          <ShareField
            label="Level"
            value={valueOf(event)}
            onChange={(value) => Number.isFinite(value) && change({ document: { value } }, "Change a level")}
          />
        )}
      </Row>
      {kind === "cues" && (
        <Choice
          label="Goes to"
          value={Number((event.document as { cue?: number }).cue)}
          options={song.cues
            .filter((one) => `list:${one.list_id}` === track.document.drives)
            .map((one) => ({ id: one.id, text: `${one.number} ${one.name}` }))}
          onChange={(cue) => change({ document: { cue: Number(cue) } }, "Choose another cue")}
        />
      )}
      {kind === "presses" && (
        <Choice
          label="What it does"
          value={does}
          options={[
            { id: "hold", text: "held for its length" },
            { id: "on", text: "switched on" },
            { id: "off", text: "switched off" },
          ]}
          onChange={(key) => change({ document: { does: key } }, "Change a press")}
        />
      )}
      {message && (
        <Row>
          <Tick
            isSelected={("is_state" in message && message.is_state) || false}
            onChange={(is_state) =>
              change({ document: { message: { ...message, is_state } } }, "Change a message")
            }
          >
            Told again after a jump
          </Tick>
          <Button data-variant="small" onPress={() => setOpen(true)}>
            Change what it says …
          </Button>
        </Row>
      )}
      {message && open && (
        <TrackMessage
          track={track}
          message={message}
          onKeep={(now) =>
            edits.changeEvents([{ id: event.id, document: { message: now } }], "Change a message")
          }
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}
