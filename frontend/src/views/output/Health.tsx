import styled from "styled-components";

import { useLive } from "../../live/socket";

const Facts = styled.dl`
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 10px 28px;
  padding: 16px 0;
  margin: 0;
  dt {
    color: var(--quiet);
  }
  dd {
    margin: 0;
  }
  b {
    font-family: var(--numbers);
    font-weight: 600;
  }
`;

/** How the engine is doing, in a few figures. */
export function Health() {
  const state = useLive((live) => live.state);
  if (!state) return null;
  const { health, outputs } = state;
  return (
    <Facts>
      <dt>Frames</dt>
      <dd>
        <b>{health.frames.toLocaleString("en")}</b> at <b>{health.rate} Hz</b>
      </dd>
      <dt>Time for one frame</dt>
      <dd>
        <b>{health.median_ms.toFixed(2)} ms</b> in the middle, <b>{health.p99_ms.toFixed(2)} ms</b> at the
        99th percent, of {(1000 / health.rate).toFixed(1)} ms there are
      </dd>
      <dt>Late frames</dt>
      <dd>
        <b>{health.late}</b> (left out, never queued)
      </dd>
      <dt>Faults</dt>
      <dd>
        <b>{health.errors}</b> {health.last_error}
      </dd>
      <dt>Wrong now</dt>
      <dd>
        {health.troubles.length
          ? health.troubles.map(({ who, text }) => (
              <div key={who}>
                {who}: {text}
              </div>
            ))
          : "nothing"}
      </dd>
      {outputs.map((output) => (
        <div key={output.to} style={{ display: "contents" }}>
          <dt>Route</dt>
          <dd>
            {output.kind} to <b>{output.to}</b>: <b>{output.packets.toLocaleString("en")}</b> packets,{" "}
            <b>{output.errors}</b> errors {output.last_error}
          </dd>
        </div>
      ))}
    </Facts>
  );
}
