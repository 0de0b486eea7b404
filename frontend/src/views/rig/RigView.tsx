import { useMemo } from "react";
import styled from "styled-components";

import { useRig } from "../../api/queries";
import type { Schemas } from "../../api/client";
import { desk, useDesk } from "../../state";
import { Table, type TableColumn } from "../../ui/Table";

const Frame = styled.section`
  height: 100%;
  overflow: auto;
  padding: 0 20px;
`;
type Fixture = Schemas["FixtureView"];
const metre = (value: number) => value.toFixed(1);
const COLUMNS: TableColumn<Fixture>[] = [
  { id: "number", title: "Number", text: (f) => String(f.number) },
  { id: "name", title: "Name", text: (f) => f.name },
  { id: "universe", title: "Universe", number: true, text: (f) => String(f.universe ?? "none") },
  { id: "address", title: "Address", number: true, text: (f) => String(f.address ?? "none") },
  { id: "x", title: "x, m", number: true, text: (f) => metre(f.place[0]) },
  { id: "y", title: "y, m", number: true, text: (f) => metre(f.place[1]) },
  { id: "z", title: "z, m", number: true, text: (f) => metre(f.place[2]) },
];

/** The patch, to read: choosing rows chooses heads. */
export function RigView() {
  const { data: rig } = useRig();
  const selection = useDesk((state) => state.selection);
  const selected = useMemo(() => new Set(selection.map((key) => key.split(".")[0]!)), [selection]);
  return (
    <Frame aria-label="Rig">
      <Table
        label="Fixtures"
        columns={COLUMNS}
        rows={rig?.fixtures ?? []}
        rowKey={(fixture) => String(fixture.number)}
        selected={selected}
        onSelect={(keys) =>
          desk.select(
            (rig?.heads ?? []).filter((head) => keys.has(String(head.fixture))).map((head) => head.key),
          )
        }
      />
    </Frame>
  );
}
