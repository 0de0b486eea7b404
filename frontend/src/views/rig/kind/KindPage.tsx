import { useMemo, useState } from "react";
import styled from "styled-components";

import { kindEdits, useKindSheet } from "../../../api/kinds";
import type { Rig } from "../../../api/rig";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Scroller } from "../../../ui/Scroller";
import { TextField } from "../../../ui/TextField";
import { PageHead } from "../PageHead";
import { CostSheet } from "../Questions";
import { CellsDrawing } from "./CellsDrawing";
import { ChannelTable } from "./ChannelTable";
import { grid, withCells, withoutCells } from "./kindDocument";
import { KindFacts } from "./KindFacts";
import { useKindEdit } from "./useKindEdit";
import { useTesting } from "./useTesting";
import { WheelPanel } from "./WheelPanel";

const Frame = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1.75fr) minmax(380px, 1fr);
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
  min-height: 0;
`;
const Users = styled.span`
  color: var(--quiet);
  flex: 1;
  white-space: nowrap;
`;
const Part = styled(Scroller)`
  min-height: 0;
  padding: 0 12px 12px;
  h3 {
    font-size: 15px;
    font-weight: 650;
    padding: 10px 0 4px;
  }
  section > p {
    color: var(--quiet);
    font-size: 14px;
  }
`;
const Side = styled(Part)`
  border-left: 1px solid var(--line);
  padding-top: 8px;
  ul.left {
    margin: 0;
    padding-left: 18px;
    color: var(--quiet);
    font-size: 14px;
  }
`;
const NOTHING = "no fixture";

/** A kind whole: its channels, its cells, its wheels, what it is, and a real fixture to test it on. */
export function KindPage({
  name,
  rig,
  onName,
  onClose,
}: {
  name: string;
  rig: Rig;
  onName: (name: string) => void;
  onClose: () => void;
}) {
  const { data: sheet, isError, dataUpdatedAt, isPlaceholderData } = useKindSheet(name);
  const seen = { at: dataUpdatedAt, isNow: !isPlaceholderData };
  const { document, put, ...costs } = useKindEdit(sheet, seen, onName);
  const [cell, setCell] = useState(1);
  const [tested, setTested] = useState<number | null>(null);
  const [model, setModel] = useState<string | null>(null);
  const fixtures = useMemo(() => new Map(rig.fixtures.map((one) => [one.number, one])), [rig]);
  const fixture = tested === null ? null : (fixtures.get(tested) ?? null);
  const testing = useTesting(fixture);
  if (isError) return <Button onPress={onClose}>This kind is gone. Back to the rig</Button>;
  if (!sheet || !document) return null;
  const readOnly = sheet.id === null;
  async function copy() {
    const made = await kindEdits.copy(name, model ?? `My ${document!.model}`);
    if (made) onName(made.name);
  }
  const users = sheet.numbers.length
    ? `${sheet.numbers.length} fixture${sheet.numbers.length === 1 ? "" : "s"} of it: ${sheet.numbers.slice(0, 8).join(", ")}${sheet.numbers.length > 8 ? " …" : ""}`
    : "No fixture of it yet";
  return (
    <Frame aria-label="Kind">
      <PageHead title={[document.maker, document.name].filter(Boolean).join(" ")} onClose={onClose}>
        <Users>{users}</Users>
        {readOnly ? (
          <>
            <span>It comes with every show and stays as it is.</span>
            <TextField
              label="What yours is called"
              hideLabel
              value={model ?? `My ${document.model}`}
              onChange={setModel}
            />
            <Button onPress={() => void copy()}>Make it your own</Button>
          </>
        ) : (
          <>
            <Choice
              label="Test on"
              row
              options={[
                { id: NOTHING, text: NOTHING },
                ...sheet.numbers.map((number) => ({
                  id: String(number),
                  text: `${number} ${fixtures.get(number)?.name ?? ""}`,
                })),
              ]}
              value={tested === null ? NOTHING : String(tested)}
              onChange={(key) => setTested(key === NOTHING ? null : Number(key))}
            />
            <Button isDisabled={!testing.some} onPress={testing.letGo}>
              Let go
            </Button>
            {!sheet.numbers.length && (
              <Button onPress={() => void kindEdits.remove(sheet.id!).then((gone) => gone && onClose())}>
                Delete the kind
              </Button>
            )}
          </>
        )}
      </PageHead>
      <Part>
        <ChannelTable
          document={document}
          cell={cell}
          sources={sheet.sources}
          homes={sheet.homes}
          readOnly={readOnly}
          testing={testing}
          onChange={put}
        />
      </Part>
      <Side>
        <KindFacts sheet={sheet} document={document} onChange={put} />
        <section aria-label="Cells">
          <h3>{document.cells.length ? `${document.cells.length} cells` : "One light"}</h3>
          {document.cells.length > 0 && (
            <CellsDrawing
              document={document}
              cell={Math.min(cell, document.cells.length)}
              readOnly={readOnly}
              onCell={setCell}
              onChange={put}
            />
          )}
          {!readOnly && (
            <Button
              data-variant="small"
              onPress={() =>
                put(
                  document.cells.length
                    ? withoutCells(document)
                    : withCells(document, grid(4, 1, 0.1), sheet.emitters[document.emitters] ?? []),
                )
              }
            >
              {document.cells.length ? "Make it one light" : "Divide it into cells"}
            </Button>
          )}
        </section>
        <WheelPanel document={document} readOnly={readOnly} onChange={put} />
        {document.left_out.length > 0 && (
          <section aria-label="Not used of its file">
            <h3>Not used of its file</h3>
            <ul className="left">
              {document.left_out.map((one) => (
                <li key={one}>{one}</li>
              ))}
            </ul>
          </section>
        )}
      </Side>
      {costs.asked && (
        <CostSheet
          title={`Changing ${document.name} takes something`}
          lines={costs.asked.lines}
          nothing=""
          verb="Change it"
          onDo={costs.doAsked}
          onClose={costs.leave}
        />
      )}
    </Frame>
  );
}
