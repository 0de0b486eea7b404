import { ArrowDown, ArrowUp } from "lucide-react";
import styled from "styled-components";

import { songEdits, type Song } from "../../../api/timelines";
import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";
import { useLine } from "../line";

const Table = styled.table`
  border-collapse: collapse;
  width: 760px;
  max-width: 88vw;
  th {
    text-align: left;
    font-weight: 400;
    color: var(--quiet);
    padding: 0 12px 6px 0;
  }
  td {
    border-top: 1px solid var(--line);
    padding: 6px 12px 6px 0;
    font-variant-numeric: tabular-nums;
  }
  td:nth-child(2) {
    font-weight: 650;
  }
  @media print {
    button {
      display: none;
    }
  }
`;
const length = (s: number) => `${Math.floor(s / 60)}:${String(Math.round(s % 60)).padStart(2, "0")}`;

/** The songs in the order in which they are played; to be printed. */
export function RunningOrderSheet({ songs, onClose }: { songs: Song[]; onClose: () => void }) {
  const order = songs.map((one) => one.id);
  const move = (from: number, to: number) => {
    const moved = [...order];
    moved.splice(to, 0, ...moved.splice(from, 1));
    void songEdits.order(moved);
  };
  async function make() {
    const names = new Set(songs.map((one) => one.name));
    let n = songs.length + 1;
    while (names.has(`Song ${n}`)) n++;
    const made = await songEdits.add(`Song ${n}`, {});
    if (made) {
      useLine.setState({ song: made.id });
      onClose();
    }
  }
  const total = songs.reduce((sum, one) => sum + one.length_s, 0);
  return (
    <Sheet title="Running order" isOpen onClose={onClose}>
      <Table className="prints">
        <thead>
          <tr>
            <th />
            <th>Song</th>
            <th>Length</th>
            <th>Tempo</th>
            <th>Timecode</th>
            <th>Events</th>
            <th aria-label="Move" />
          </tr>
        </thead>
        <tbody>
          {songs.map((one, n) => (
            <tr key={one.id}>
              <td>{n + 1}</td>
              <td>{one.name}</td>
              <td>{length(one.length_s)}</td>
              <td>{Number(one.bpm.toFixed(2))} BPM</td>
              <td>
                {one.clock === "MTC"
                  ? `MTC ${one.rate}, ${one.begins} to ${one.ends}`
                  : `own clock, ${one.begins}`}
              </td>
              <td>{one.events}</td>
              <td>
                <Button
                  data-variant="plain"
                  aria-label={`${one.name}: earlier`}
                  isDisabled={n === 0}
                  onPress={() => move(n, n - 1)}
                >
                  <ArrowUp size={16} aria-hidden="true" />
                </Button>
                <Button
                  data-variant="plain"
                  aria-label={`${one.name}: later`}
                  isDisabled={n === songs.length - 1}
                  onPress={() => move(n, n + 1)}
                >
                  <ArrowDown size={16} aria-hidden="true" />
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p>Together {length(total)}.</p>
      <Ending>
        <Button onPress={() => void make()}>New song</Button>
        <Button onPress={() => window.print()}>Print …</Button>
        <Button onPress={onClose}>Close</Button>
      </Ending>
    </Sheet>
  );
}
