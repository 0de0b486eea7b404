import styled from "styled-components";

import { timecodeEdits, useTimecode } from "../../../api/timecode";
import { useSongs } from "../../../api/timelines";
import { useLivePart } from "../../../live/socket";
import { Choice } from "../../../ui/Choice";
import { LineTools } from "./LineTools";
import { PlayerTools } from "./PlayerTools";

const Words = styled.p`
  padding: 8px 0;
  max-width: 62em;
  color: var(--quiet);
`;
const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 0 40px;
  align-items: start;
`;
const Part = styled.section`
  padding: 14px 0 6px;
  display: grid;
  gap: 8px;
  justify-items: start;
  dl {
    display: grid;
    grid-template-columns: auto auto;
    gap: 4px 20px;
    margin: 0;
  }
  dt {
    color: var(--quiet);
  }
  dd {
    margin: 0;
    font-family: var(--numbers);
  }
  table {
    border-collapse: collapse;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--quiet);
    padding: 0 24px 4px 0;
  }
  td {
    padding: 4px 24px 4px 0;
    border-top: 1px solid var(--line);
    font-variant-numeric: tabular-nums;
  }
`;
const STATES: Record<string, string> = {
  none: "nothing has come",
  locking: "comes, and is being followed soon",
  chasing: "is followed",
  free: "has stopped: the song runs on for up to 2 s",
  standing: "stands",
  lost: "has stopped",
};

/** Where timecode comes from, what is heard of it, which songs it can choose, and the simulated player. */
export function TimecodePanel() {
  const { data, dataUpdatedAt } = useTimecode();
  const { data: songs } = useSongs();
  const told = useLivePart((state) => {
    const one = state?.timecode;
    return one ? { ...one, since: 0 } : null;
  });
  if (!data) return null;
  const ports = [
    { id: "", text: "nowhere" },
    { id: "simulator", text: "the simulated player" },
    ...data.ports.map((one) => ({ id: one, text: `MIDI port ${one}` })),
  ];
  return (
    <>
      <Two>
        <Part aria-label="Incoming timecode">
          <h2>Incoming timecode</h2>
          <Choice
            row
            label="MTC comes from"
            value={data.source}
            options={ports}
            onChange={(key) => void timecodeEdits.source(String(key))}
          />
          {told && (
            <dl>
              <dt>It</dt>
              <dd>{STATES[told.state] ?? told.state}</dd>
              <dt>Label</dt>
              <dd>{told.label || "none yet"}</dd>
              <dt>Frames a second, as it says</dt>
              <dd>{told.rate || "not known yet"}</dd>
            </dl>
          )}
          {told?.text && <strong role="status">{told.text}</strong>}
        </Part>
        <Part aria-label="Songs by timecode">
          <h2>Which song a label chooses</h2>
          <table>
            <thead>
              <tr>
                <th>Song</th>
                <th>Follows</th>
                <th>From</th>
                <th>To</th>
                <th>Frames a second</th>
              </tr>
            </thead>
            <tbody>
              {songs?.map((one) => (
                <tr key={one.id}>
                  <td>{one.name}</td>
                  <td>{one.clock === "MTC" ? "MTC" : "its own clock"}</td>
                  <td>{one.begins}</td>
                  <td>{one.ends}</td>
                  <td>{one.rate}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Words>Which clock a song follows is chosen in Timeline, Song: length, sound, timecode.</Words>
        </Part>
      </Two>
      {data.player ? (
        <PlayerTools player={data.player} toldAt={dataUpdatedAt} />
      ) : (
        <Words>The simulated player does not run. Start Zarabanda without --no-node.</Words>
      )}
      <LineTools />
    </>
  );
}
