import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";

import { api, take, type Schemas } from "../../api/client";
import { Table, type TableColumn } from "../../ui/Table";

const Words = styled.p`
  padding: 10px 0;
  max-width: 60em;
`;
type Row = Schemas["NodeUniverse"];
const ms = (value: number) => `${value.toFixed(2)} ms`;
const state = (row: Row) => (row.terminated ? "ended" : row.lost ? "lost" : "receiving");
const COLUMNS: TableColumn<Row>[] = [
  { id: "universe", title: "Universe", text: (row) => String(row.universe) },
  { id: "state", title: "State", text: state },
  { id: "source", title: "Source", text: (row) => row.source },
  { id: "priority", title: "Priority", number: true, text: (row) => String(row.priority) },
  { id: "rate", title: "Packets/s", number: true, text: (row) => row.per_second.toFixed(1) },
  { id: "packets", title: "Packets", number: true, text: (row) => row.packets.toLocaleString("en") },
  { id: "errors", title: "Sequence errors", number: true, text: (row) => String(row.sequence_errors) },
  { id: "gap", title: "Usual gap", number: true, text: (row) => ms(row.gap_ms) },
  { id: "jitter", title: "Jitter, 99 %", number: true, text: (row) => ms(row.jitter_ms) },
  { id: "longest", title: "Longest gap", number: true, text: (row) => ms(row.longest_gap_ms) },
  { id: "slots", title: "First slots, decoded", text: (row) => row.slots.slice(0, 8).join(" ") },
];

/** What the simulated E1.31 node on this machine receives and decodes. */
export function NodeTable() {
  const { data: node } = useQuery({
    queryKey: ["node"],
    queryFn: () => take(api.GET("/api/output/node")),
    refetchInterval: 1000,
  });
  if (!node) return null;
  if (!node.running)
    return (
      <Words>
        The simulated node does not run. Start Zarabanda with demo or serve, or run “zarabanda node”.
      </Words>
    );
  return (
    <>
      <Words>
        A stand-in for a lighting node: it receives UDP on 127.0.0.1:{node.port} and decodes E1.31 by the
        standard. Universes that stand still are kept alive about once a second. {node.bad} packets could not
        be decoded
        {node.bad ? ` (the last: ${node.last_bad})` : ""}.
      </Words>
      <Table
        label="Simulated node"
        columns={COLUMNS}
        rows={node.universes ?? []}
        rowKey={(row) => String(row.universe)}
      />
    </>
  );
}
