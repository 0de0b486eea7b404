import { useEffect, useMemo, useRef, useState } from "react";
import { TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import { api, take } from "../../api/client";
import { tell, useKinds, useOdd, useRig } from "../../api/queries";
import { fixturesOf, takenAs, type Fixture } from "../../api/rig";
import { desk, useDesk } from "../../state";
import { TabName, TabRow } from "../../ui/Tabs";
import { AddLights } from "./add/AddLights";
import { EmptyRig } from "./EmptyRig";
import { GroupPanel } from "./groups/GroupPanel";
import { OrderPanel } from "./groups/OrderPanel";
import { KindPage } from "./kind/KindPage";
import { OddList } from "./map/OddList";
import { UniverseMap } from "./map/UniverseMap";
import { PlacesPanel } from "./PlacesPanel";
import { RigQuestion, type Question } from "./RigQuestion";
import { rigEdits } from "../../api/rigEdits";
import { TakeOverPage } from "./takeover/TakeOverPage";
import { asRows, COLUMNS, shownRows } from "./table/columns";
import { FixtureTable } from "./table/FixtureTable";
import { TableTools } from "./table/TableTools";
import { FixtureMenus } from "./tools/FixtureMenus";
import { StepTools } from "./tools/StepTools";
import { useRigFile } from "./tools/useRigFile";

const Frame = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1.75fr) minmax(380px, 1fr);
  height: 100%;
  min-height: 0;
  > * {
    min-width: 0;
    min-height: 0;
    padding: 0 12px;
  }
  > :last-child {
    border-left: 1px solid var(--line);
  }
`;
const Left = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  && {
    padding-right: 0;
  }
`;
const Tools = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 6px 12px 6px 0;
  overflow: hidden;
  @media (max-width: 1180px) {
    flex-wrap: wrap;
  }
`;
const Right = styled(Tabs)`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  &[data-focus-visible] {
    outline: none; /* what has the focus within it shows it */
  }
  @media (max-width: 1180px) {
    [role="tab"] {
      padding: 0 8px;
      font-size: 14px;
      white-space: nowrap;
    }
  }
  grid-template-rows: auto minmax(0, 1fr);
`;
const Panel = styled(TabPanel)`
  min-height: 0;
  height: 100%;
  outline-offset: -2px;
`;
const Split = styled.div`
  display: grid;
  grid-template-rows: minmax(120px, max-content) minmax(48px, 1fr);
  height: 100%;
`;

const HIDDEN_AT_FIRST: ReadonlySet<string> = new Set(["layer", "class_name"]);

/** The patch: a table to type into, universes as strips, groups, places; all three and the stage tied to one selection. */
export function RigView() {
  const { data: rig } = useRig();
  const { data: odd = [] } = useOdd();
  const { data: kinds } = useKinds();
  const selection = useDesk((state) => state.selection);
  const [tab, setTab] = useState("universes");
  const [words, setWords] = useState("");
  const [sort, setSort] = useState({ column: "number", down: false });
  const [hidden, setHidden] = useState<ReadonlySet<string>>(HIDDEN_AT_FIRST);
  const [question, setQuestion] = useState<Question | null>(null);
  const [kind, setKind] = useState<string | null>(null);
  const [takesOver, setTakesOver] = useState(false);
  const file = useRigFile();
  const numbers = useMemo(() => fixturesOf(selection), [selection]);
  const selected = useMemo(() => new Set(numbers), [numbers]);
  const columns = useMemo(() => COLUMNS.filter((column) => !hidden.has(column.id)), [hidden]);
  const rows = useMemo(() => (rig ? shownRows(rig, columns, words, sort) : []), [rig, columns, words, sort]);
  const oddNumbers = useMemo(() => new Set(odd.flatMap((one) => one.numbers)), [odd]);
  const overlapping = useMemo(
    () => new Set(odd.filter((one) => one.kind === "overlap").flatMap((one) => one.numbers)),
    [odd],
  );
  const added = useRef<number[]>([]);
  useEffect(() => {
    // what was just added is chosen as soon as it has come
    if (!rig || !added.current.length || !added.current.every((number) => rig.of.has(number))) return;
    desk.select(takenAs(rig, added.current, useDesk.getState().cells));
    added.current = [];
  }, [rig]);
  if (!rig) return null;
  if (takesOver) return <TakeOverPage onClose={() => setTakesOver(false)} />;
  if (kind) return <KindPage name={kind} rig={rig} onName={setKind} onClose={() => setKind(null)} />;
  if (!rig.fixtures.length && tab !== "add")
    return (
      <>
        <EmptyRig onAdd={() => setTab("add")} onFile={file.choose} />
        {file.parts}
      </>
    );
  const select = (those: number[]) => desk.select(takenAs(rig, those, useDesk.getState().cells));

  async function typed(fixture: Fixture, column: string, text: string) {
    const those = selected.has(fixture.number) ? numbers : [fixture.number];
    if (column === "mode") {
      const lines = await rigEdits.cost(those, column, text);
      if (lines?.length) setQuestion({ kind: "cost", lines, numbers: those, column, text });
      if (!lines || lines.length) return;
    }
    await rigEdits.typed(those, column, text);
  }
  async function paste(text: string, from: Fixture | undefined, column: string) {
    const there = rows.slice(from ? rows.indexOf(from) : 0).map((row) => row.number);
    const body = { text, numbers: there, column };
    try {
      const told = await take(api.POST("/api/rig/paste", { body: { ...body, preview: true } }));
      setQuestion({ kind: "paste", told, body });
    } catch (error) {
      tell(error);
    }
  }
  async function askToDelete() {
    const lines = numbers.length ? await rigEdits.uses(numbers) : null;
    if (lines) setQuestion({ kind: "delete", lines, numbers });
  }
  const close = () => setQuestion(null);
  return (
    <>
      <Frame aria-label="Rig">
        <Left>
          <Tools>
            <TableTools
              words={words}
              onWords={setWords}
              hidden={hidden}
              onHidden={setHidden}
              count={rows.length}
            />
            <FixtureMenus
              rig={rig}
              numbers={numbers}
              onDelete={() => void askToDelete()}
              onKind={setKind}
              onTakeOver={() => setTakesOver(true)}
              onFile={file.choose}
            />
            <StepTools />
          </Tools>
          <FixtureTable
            rig={rig}
            rows={rows}
            columns={columns}
            selected={selected}
            odd={oddNumbers}
            onSelect={select}
            onSort={(column) => setSort({ column, down: sort.column === column && !sort.down })}
            onTyped={(fixture, column, text) => void typed(fixture, column, text)}
            onPaste={(text, from, column) => void paste(text, from, column)}
            onCopy={() =>
              asRows(selected.size ? rows.filter((row) => selected.has(row.number)) : rows, columns, rig)
            }
            onDelete={() => void askToDelete()}
          />
          <datalist id="kinds">
            {kinds?.kinds.map((kind) => (
              <option key={kind.name} value={kind.name} />
            ))}
          </datalist>
        </Left>
        <Right selectedKey={tab} onSelectionChange={(key) => setTab(String(key))}>
          <TabRow aria-label="Beside the table">
            <TabName id="universes">Universes</TabName>
            <TabName id="add">Add lights</TabName>
            <TabName id="groups">Groups</TabName>
            <TabName id="order">Order</TabName>
            <TabName id="places">Places</TabName>
          </TabRow>
          <Panel id="universes">
            <Split>
              <UniverseMap rig={rig} selected={selected} overlapping={overlapping} onSelect={select} />
              <OddList odd={odd} onSelect={select} />
            </Split>
          </Panel>
          <Panel id="add">
            <AddLights rig={rig} onAdded={(numbers) => (added.current = numbers)} onKind={setKind} />
          </Panel>
          <Panel id="groups">
            <GroupPanel />
          </Panel>
          <Panel id="order">
            <OrderPanel rig={rig} />
          </Panel>
          <Panel id="places">
            <PlacesPanel rig={rig} numbers={numbers} />
          </Panel>
        </Right>
        {question && <RigQuestion question={question} onClose={close} />}
      </Frame>
      {file.parts}
    </>
  );
}
