import { useState } from "react";
import styled from "styled-components";

import { useTimelineEdits, type Timeline } from "../../../api/timelines";
import { act } from "../../../live/socket";
import { say } from "../../../ui/Toasts";
import { Button } from "../../../ui/Button";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { positionNow, useLine } from "../line";
import { PositionField } from "../list/PositionField";
import { barAndBeat } from "../scale";

const Rows = styled.div`
  display: grid;
  gap: 12px;
  width: 560px;
  max-width: 86vw;
  p {
    color: var(--quiet);
  }
  .line {
    display: flex;
    gap: 12px;
    align-items: end;
    flex-wrap: wrap;
  }
  .changes {
    display: grid;
    gap: 4px;
    max-height: 180px;
    overflow: auto;
  }
  .changes > div {
    display: flex;
    gap: 12px;
    align-items: center;
    span {
      flex: 1;
      font-family: var(--numbers);
    }
  }
`;

/** The beats of a song: typed, tapped along, and changed from a bar on. */
export function GridSheet({ song, onClose }: { song: Timeline; onClose: () => void }) {
  const edits = useTimelineEdits(song.id);
  const [taps, setTaps] = useState<number[]>([]);
  const [from, setFrom] = useState(2);
  const [bpm, setBpm] = useState(120);
  const grid = song.document.grid ?? {};
  const changes = grid.changes ?? [{ beat: 0, bpm: 120 }];
  const inBar = grid.in_bar ?? 4;
  const length = song.document.length_s ?? 0;
  const put = (part: Partial<typeof grid>) =>
    void edits.change({ name: song.name, document: { ...song.document, grid: { ...grid, ...part } } });
  function tap() {
    const p = positionNow(song.id, length);
    if (p === null) return say("Play the song first, then tap along.");
    setTaps((before) => [...before, p]);
  }
  async function fit() {
    if (await edits.grid({ do: "tapped", taps })) setTaps([]);
  }
  return (
    <Sheet title="Beat grid" isOpen onClose={onClose}>
      <Rows>
        <p>Effects of this song&apos;s cues run on these beats, so that each jump is exact.</p>
        <div className="line">
          <NumberField
            label="Tempo"
            unit="BPM"
            minValue={10}
            maxValue={400}
            step={0.001}
            value={changes[0]!.bpm}
            onChange={(value) => put({ changes: [{ beat: 0, bpm: value }, ...changes.slice(1)] })}
          />
          <PositionField
            label="Bar 1 begins at"
            value={Math.max(grid.first_s ?? 0, 0)}
            rate={song.document.rate ?? "25"}
            onChange={(first_s) => put({ first_s })}
          />
          <NumberField
            label="Beats in a bar"
            minValue={1}
            maxValue={16}
            value={inBar}
            onChange={(in_bar) => put({ in_bar })}
          />
        </div>
        <div className="line">
          <Button onPress={() => act({ do: "play-song", timeline: song.id, on: true })}>Play</Button>
          <Button onPressStart={tap}>Tap along</Button>
          <Button isDisabled={taps.length < 4} onPress={() => void fit()}>
            Use {taps.length} taps
          </Button>
          {taps.length > 0 && (
            <Button data-variant="plain" onPress={() => setTaps([])}>
              Forget them
            </Button>
          )}
        </div>
        <div className="changes">
          {changes.slice(1).map((one) => (
            <div key={one.beat}>
              <span>
                from bar {Math.floor(one.beat / inBar) + 1}
                {one.beat % inBar ? `, beat ${(one.beat % inBar) + 1}` : ""}: {one.bpm} BPM
              </span>
              <Button
                data-variant="small"
                onPress={() => void edits.grid({ do: "no-tempo", beat: one.beat })}
              >
                Take out
              </Button>
            </div>
          ))}
        </div>
        <div className="line">
          <NumberField label="From bar" minValue={2} maxValue={9999} value={from} onChange={setFrom} />
          <NumberField label="on" unit="BPM" minValue={10} maxValue={400} value={bpm} onChange={setBpm} />
          <Button onPress={() => void edits.grid({ do: "tempo", beat: (from - 1) * inBar, bpm })}>
            Change the tempo there
          </Button>
        </div>
        <div className="line">
          <Button
            onPress={() => {
              useLine.setState({ shapes: true });
              onClose();
            }}
          >
            Drag bars on the line
          </Button>
          <Button
            onPress={() => {
              const p = positionNow(song.id, length) ?? 0;
              const bar = barAndBeat(p + 0.5 * ((60 / changes[0]!.bpm) * inBar), song)?.[0] ?? 1;
              void edits.grid({ do: "drag", beat: (bar - 1) * inBar, at: p });
            }}
          >
            The nearest bar begins at the playhead
          </Button>
        </div>
      </Rows>
      <Ending>
        <Button onPress={onClose}>Close</Button>
      </Ending>
    </Sheet>
  );
}
