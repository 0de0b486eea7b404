import styled from "styled-components";

import { useNodes, type SimulatedNode } from "../../api/output";
import { Table, type TableColumn } from "../../ui/Table";
import { FaultTools } from "./FaultTools";

const Words = styled.p`
  padding: 6px 0 10px;
  max-width: 62em;
  color: var(--quiet);
`;
const Node = styled.section`
  padding: 12px 0 20px;
  & + & {
    border-top: 1px solid var(--edge);
  }
`;
type Row = SimulatedNode["universes"][number];
const ms = (value: number) => `${value.toFixed(2)} ms`;
const state = (row: Row) =>
  row.terminated ? "ended" : row.lost ? "lost" : row.synchronised ? "in step" : "receiving";
const SOURCE: TableColumn<Row>[] = [
  { id: "source", title: "Source", text: (row) => row.source },
  { id: "priority", title: "Priority", number: true, text: (row) => String(row.priority ?? "") },
  { id: "sources", title: "Sources", number: true, text: (row) => String(row.sources) },
];
const COLUMNS: TableColumn<Row>[] = [
  { id: "universe", title: "Universe", text: (row) => String(row.universe) },
  { id: "state", title: "State", text: state },
  { id: "rate", title: "Packets/s", number: true, text: (row) => row.per_second.toFixed(1) },
  { id: "packets", title: "Packets", number: true, text: (row) => row.packets.toLocaleString("en") },
  { id: "errors", title: "Sequence errors", number: true, text: (row) => String(row.sequence_errors) },
  { id: "gap", title: "Usual gap", number: true, text: (row) => ms(row.gap_ms) },
  { id: "jitter", title: "Jitter, 99 %", number: true, text: (row) => ms(row.jitter_ms) },
  { id: "longest", title: "Longest gap", number: true, text: (row) => ms(row.longest_gap_ms) },
  { id: "slots", title: "First slots, decoded", text: (row) => row.slots.slice(0, 8).join(" ") },
];
const E131_COLUMNS = [...COLUMNS.slice(0, 2), ...SOURCE, ...COLUMNS.slice(2)];

/** What could not be decoded, the most frequent first. */
const kindsOf = (node: SimulatedNode) =>
  Object.entries(node.faults)
    .sort((a, b) => b[1] - a[1])
    .slice(0, 5)
    .map(([what, count]) => `${count.toLocaleString("en")} × ${what}`)
    .join("; ");

/** What the simulated nodes on this machine receive and decode, and how they misbehave. */
export function SimulatorsPanel() {
  const { data: nodes } = useNodes();
  if (!nodes) return null;
  if (!nodes.length)
    return (
      <Words>
        The simulated nodes do not run. Start Zarabanda without --no-node, or run “zarabanda node” or
        “zarabanda artnet-node” with --data.
      </Words>
    );
  return nodes.map((node) => (
    <Node key={node.protocol} aria-label={node.name}>
      <h2>{node.name}</h2>
      <Words>
        A stand-in for a lighting node: it receives {node.protocol} at {node.host}:{node.port} and decodes it
        by the standard.
        {node.bad > 0 && ` ${node.bad.toLocaleString("en")} packets could not be decoded: ${kindsOf(node)}.`}
      </Words>
      <FaultTools node={node} />
      <Table
        label={`What the ${node.name} receives`}
        columns={node.protocol === "E1.31" ? E131_COLUMNS : COLUMNS}
        rows={node.universes}
        rowKey={(row) => String(row.universe)}
        empty={
          node.vanished ? "It is unplugged." : "Nothing has come yet. Switch a route to it on, under Routes."
        }
      />
    </Node>
  ));
}
