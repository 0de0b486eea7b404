import styled from "styled-components";

import { lineEdits, useLine, useLineTold } from "../../../api/line";
import { Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { ShareField } from "../../../ui/ShareField";
import { BandBars } from "./BandBars";

const Part = styled.section`
  border-top: 1px solid var(--edge);
  padding: 14px 0 24px;
  display: grid;
  gap: 12px;
  justify-items: start;
  p {
    color: var(--quiet);
    max-width: 62em;
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 20px;
  align-items: end;
`;

/** Where sound comes in for layers that hear the line input, what is heard of it, and the simulated line. */
export function LineTools() {
  const { data } = useLine();
  const told = useLineTold();
  if (!data) return null;
  const sources = [
    { id: "", text: "nowhere" },
    { id: "simulator", text: "the simulated line" },
    ...data.inputs.map((one) => ({ id: one, text: one })),
  ];
  const heard = !told?.open ? "There is no line." : told.sounds ? "It is heard." : "It is silent.";
  return (
    <Part aria-label="Line input">
      <h2>Line input</h2>
      <p>
        Picture layers that draw a level or bands hear it if they are told to. It is heard as it comes: a song
        that jumps does not bring it back. {heard}
      </p>
      <Row>
        <Choice
          row
          label="Sound comes from"
          value={data.source}
          options={sources}
          onChange={(key) => void lineEdits.source(String(key))}
        />
        <BandBars bands={told?.bands ?? []} />
      </Row>
      {data.player ? (
        <Row role="group" aria-label="Simulated line">
          <Toggle isSelected={data.player.runs} onChange={(on) => void lineEdits.player({ on })}>
            {data.player.runs ? "Stop the simulated line" : "Play the simulated line"}
          </Toggle>
          <NumberField
            label="Its tempo"
            unit="BPM"
            minValue={40}
            maxValue={240}
            value={data.player.bpm}
            onChange={(bpm) => Number.isFinite(bpm) && void lineEdits.player({ bpm })}
          />
          <ShareField
            label="Its loudness"
            value={data.player.loudness}
            onChange={(loudness) => void lineEdits.player({ loudness: loudness || 0 })}
          />
        </Row>
      ) : (
        <p>The simulated line does not run. Start Zarabanda without --no-node.</p>
      )}
    </Part>
  );
}
