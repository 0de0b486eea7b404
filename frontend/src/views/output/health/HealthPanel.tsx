import styled from "styled-components";

import { useProcesses } from "../../../api/output";
import { useLive } from "../../../live/socket";
import { Table, type TableColumn } from "../../../ui/Table";
import type { Schemas } from "../../../api/client";
import { Split } from "../Split";
import { EventLog } from "./EventLog";
import { LastMinute } from "./LastMinute";
import { TimeParts } from "./TimeParts";

const Facts = styled.dl`
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 6px 24px;
  margin: 10px 0 16px;
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
type Process = Schemas["ProcessView"];
const COLUMNS: TableColumn<Process>[] = [
  { id: "name", title: "Process", text: (row) => row.name },
  { id: "state", title: "State", text: (row) => (row.running ? "runs" : row.message || "does not run") },
  { id: "restarts", title: "Restarts", number: true, text: (row) => String(row.restarts) },
  { id: "cpu", title: "Of a core", number: true, text: (row) => `${row.cpu.toFixed(0)} %` },
  { id: "memory", title: "Memory", number: true, text: (row) => `${row.memory_mb.toFixed(0)} MB` },
];

/** How the engine and the other processes do, and what has happened. */
export function HealthPanel() {
  const state = useLive((live) => live.state);
  const { data: processes } = useProcesses();
  if (!state) return null;
  const { health } = state;
  const budget = 1000 / health.rate;
  return (
    <Split>
      <section aria-label="Engine" tabIndex={0}>
        <LastMinute minute={health.minute} budget={budget} />
        <Facts>
          <dt>Frames</dt>
          <dd>
            <b>{health.frames.toLocaleString("en")}</b> at <b>{health.rate} Hz</b>; <b>{health.late}</b> late
            (left out, never queued)
          </dd>
          <dt>Time for one</dt>
          <dd>
            <b>{health.median_ms.toFixed(2)} ms</b> in the middle, <b>{health.p99_ms.toFixed(2)} ms</b> at the
            99th percent, of {budget.toFixed(1)} ms there are
          </dd>
          <dt>It goes to</dt>
          <dd>
            <TimeParts parts={health.parts_ms} budget={budget} />
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
        </Facts>
      </section>
      <div>
        <section aria-label="Processes">
          <Table
            label="Processes"
            columns={COLUMNS}
            rows={processes ?? []}
            rowKey={(row) => row.name}
            empty="Not told: Zarabanda was not started by demo or serve."
          />
        </section>
        <EventLog />
      </div>
    </Split>
  );
}
