import { useRef, useState } from "react";
import styled from "styled-components";

import { recordings, useRecordings } from "../../../api/recordings";
import { useJob } from "../../../api/useJob";
import { act, useLivePart } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button } from "../../../ui/Button";
import { Progress } from "../../../ui/Progress";
import { TextField } from "../../../ui/TextField";
import { bytes, clock, roomFor } from "./recordingWords";

const Frame = styled.section`
  display: grid;
  gap: 12px;
  padding: 12px 0;
  max-width: 980px;
  p {
    color: var(--quiet);
    max-width: 72ch;
  }
`;
const Row = styled.div`
  display: flex;
  gap: 10px;
  align-items: end;
  flex-wrap: wrap;
`;
const Table = styled.table`
  border-collapse: collapse;
  th {
    text-align: left;
    font-weight: 400;
    font-size: 14px;
    color: var(--quiet);
  }
  td,
  th {
    padding: 3px 16px 3px 0;
    border-bottom: 1px solid var(--line);
  }
  .number {
    font-family: var(--numbers);
    text-align: right;
  }
  td:last-child {
    display: flex;
    gap: 6px;
  }
`;

/** What was sent, recorded; each plays over everything, as a holder of its own. */
export function RecordingsPanel() {
  const { data } = useRecordings();
  const recorder = useLivePart((state) => state?.recorder ?? null);
  const playing = useLivePart((state) => state?.recorded ?? null);
  const [name, setName] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const { share, run, stop } = useJob();
  const records = !!recorder?.name;
  return (
    <Frame aria-label="Recordings">
      <p>
        Everything that is sent is written into a file, frame by frame. A recording plays over all else, byte
        for byte, for a machine that fails or for a picture of last night; the grand master and blackout still
        act.
      </p>
      <Row>
        <TextField label="Name of the next one" placeholder="the date" value={name} onChange={setName} />
        {records ? (
          <Button onPress={() => void recordings.end()}>End the recording</Button>
        ) : (
          <Button onPress={() => void recordings.begin(name).then(() => setName(""))}>
            Record what is sent
          </Button>
        )}
        <Button onPress={() => file.current?.click()}>Take in a file …</Button>
        <input
          ref={file}
          type="file"
          hidden
          accept=".frames"
          aria-label="A file of frames"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            if (chosen) void run((headers) => recordings.takeIn(chosen, headers));
          }}
        />
      </Row>
      {records && (
        <strong role="status">
          {recorder.name}: {clock(recorder.seconds)}, {bytes(recorder.size)}
          {recorder.lost > 0 && `, ${recorder.lost} frames lost: the disk is too slow`}
          {data &&
            roomFor(data.room, recorder.size, recorder.seconds) &&
            `, ${roomFor(data.room, recorder.size, recorder.seconds)}`}
        </strong>
      )}
      {!records && recorder?.ended && <strong role="alert">{recorder.ended}</strong>}
      {share !== null && <Progress label="Taking in" share={share} onStop={stop} />}
      {data?.recordings.length === 0 && <p>Nothing is recorded yet.</p>}
      {!!data?.recordings.length && (
        <Table aria-label="All recordings">
          <thead>
            <tr>
              <th>Name</th>
              <th>Ended</th>
              <th>Length</th>
              <th>Universes</th>
              <th>Size</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {data.recordings.map((one) => (
              <tr key={one.name}>
                <td>{one.name}</td>
                <td>
                  {new Date(one.at * 1000).toLocaleString("en-GB", {
                    dateStyle: "medium",
                    timeStyle: "short",
                  })}
                </td>
                <td className="number">{one.wrong ? "–" : clock(one.seconds)}</td>
                <td className="number">{one.universes.length}</td>
                <td className="number">{bytes(one.size)}</td>
                <td>
                  {one.wrong ? (
                    <span>{one.wrong}</span>
                  ) : playing?.name === one.name ? (
                    <Button
                      data-variant="small"
                      aria-label={`Take ${one.name} out`}
                      onPress={() => act({ do: "play-recording", name: "", seconds: 0, loops: false })}
                    >
                      Take it out, at {clock(playing.position)}
                    </Button>
                  ) : (
                    <>
                      {[false, true].map((loops) => (
                        <Button
                          key={String(loops)}
                          data-variant="small"
                          aria-label={loops ? `Play ${one.name} round and round` : `Play ${one.name}`}
                          onPress={() =>
                            act({ do: "play-recording", name: one.name, seconds: one.seconds, loops })
                          }
                        >
                          {loops ? "Round and round" : "Play"}
                        </Button>
                      ))}
                    </>
                  )}
                  <ActionMenu
                    label={one.name}
                    actions={[
                      { id: "save", text: "Save as a file" },
                      { id: "delete", text: "Delete for good", disabled: playing?.name === one.name },
                    ]}
                    onAction={(id) => {
                      if (id === "save") window.location.assign(recordings.fileOf(one.name));
                      else void recordings.remove(one.name);
                    }}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </Frame>
  );
}
