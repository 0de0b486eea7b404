import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";

import { useNodes, useRoutes } from "../../../api/output";
import { useUniverses } from "../../../api/queries";
import { useLivePart, watch } from "../../../live/socket";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { TextField } from "../../../ui/TextField";
import { HoldTools } from "./HoldTools";
import { isFound, ownerOf, type Format } from "./places";
import { SlotCanvas } from "./SlotCanvas";
import { gotBy } from "./compare";

const Tools = styled.div`
  position: sticky;
  top: 0;
  background: var(--ink);
  z-index: 1;
  padding: 8px 0;
  display: grid;
  gap: 8px;
  > div {
    display: flex;
    gap: 8px 16px;
    align-items: center;
    flex-wrap: wrap;
  }
`;
const Told = styled.span`
  color: var(--quiet);
  flex: 1;
  min-width: 16em;
`;
const Beside = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 24px;
  &[data-two] {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
`;
const NONE = "none";
const FORMATS: { id: Format; text: string }[] = [
  { id: "decimal", text: "0 to 255" },
  { id: "percent", text: "%" },
  { id: "hexadecimal", text: "hexadecimal" },
];
const COMPARED = [
  { id: NONE, text: "nothing" },
  { id: "E1.31", text: "the E1.31 node" },
  { id: "Art-Net", text: "the Art-Net node" },
];

/** The slots of one universe or two, live: what each does, what a node got of it, and one held by hand. */
export function SlotsPanel() {
  const { data } = useUniverses();
  const [chosen, setChosen] = useState<number | null>(null);
  const [second, setSecond] = useState<number | null>(null);
  const [rows, setRows] = useState("fixture");
  const [perRow, setPerRow] = useState(24);
  const [format, setFormat] = useState<Format>("decimal");
  const [words, setWords] = useState("");
  const [against, setAgainst] = useState(NONE);
  const [target, setTarget] = useState<{ universe: number | null; slot: number }>({
    universe: null,
    slot: 1,
  });
  const [value, setValue] = useState(255);
  const [place, setPlace] = useState<{ universe: number; slot: number } | null>(null);
  const held = useLivePart((state) => state?.held ?? []);
  const { data: nodes } = useNodes(against !== NONE);
  const { data: routes } = useRoutes();
  const universes = useMemo(() => data?.universes ?? [], [data]);
  const first = universes.find((one) => one.universe === chosen) ?? universes[0];
  const other = second === null ? undefined : universes.find((one) => one.universe === second);
  const numbers = [first?.universe, other?.universe].filter((one) => one !== undefined);
  const watched = numbers.join();
  useEffect(() => {
    watch(watched ? watched.split(",").map(Number) : []);
    return () => watch([]);
  }, [watched]);
  if (!first) return <p>No fixture has an address yet, so nothing is sent. Give them one in the Rig view.</p>;

  function find(text: string) {
    setWords(text);
    const holds = (one: (typeof universes)[number]) => one.fixtures.some((fixture) => isFound(fixture, text));
    if (text.trim() && first && !holds(first)) setChosen(universes.find(holds)?.universe ?? first.universe);
  }
  const choices = universes.map((one) => ({
    id: one.universe,
    text: `${one.universe}, ${one.used} slots used`,
  }));
  const aimed = {
    universe: numbers.includes(target.universe ?? 0) ? target.universe! : first.universe,
    slot: target.slot,
  };
  const at = place ?? aimed;
  const fixtures = universes.find((one) => one.universe === at.universe)?.fixtures ?? [];
  return (
    <>
      <Tools>
        <div>
          <Choice
            label="Universe"
            row
            options={choices}
            value={first.universe}
            onChange={(key) => setChosen(Number(key))}
          />
          <Choice
            label="Beside it"
            row
            options={[{ id: NONE, text: "none" }, ...choices]}
            value={second ?? NONE}
            onChange={(key) => setSecond(key === NONE ? null : Number(key))}
          />
          <Choice
            label="Rows"
            row
            options={[
              { id: "fixture", text: "by fixture" },
              { id: "free", text: "of slots" },
            ]}
            value={rows}
            onChange={(key) => setRows(String(key))}
          />
          {rows === "free" && (
            <NumberField
              label="Slots in a row"
              row
              minValue={1}
              maxValue={128}
              value={perRow}
              onChange={(count) => count > 0 && setPerRow(count)}
            />
          )}
          <Choice
            label="Values"
            row
            options={FORMATS}
            value={format}
            onChange={(key) => setFormat(key as Format)}
          />
          <Choice
            label="Compare with"
            row
            options={COMPARED}
            value={against}
            onChange={(key) => setAgainst(String(key))}
          />
        </div>
        <div>
          <TextField
            label="Find a fixture"
            hideLabel
            placeholder="Find a fixture"
            value={words}
            onChange={find}
          />
          <Told aria-live="polite">
            Slot {at.slot} of universe {at.universe}: {ownerOf(fixtures, at.slot)}
          </Told>
          <HoldTools
            {...aimed}
            value={value}
            onSlot={(slot) => setTarget({ ...aimed, slot })}
            onValue={setValue}
          />
        </div>
      </Tools>
      <Beside data-two={other ? true : undefined}>
        {[first, other].map(
          (one, index) =>
            one && (
              <SlotCanvas
                key={`${index} ${one.universe}`}
                universe={one.universe}
                fixtures={one.fixtures}
                perRow={rows === "free" ? perRow : 0}
                format={format}
                words={words}
                chosen={one.universe === aimed.universe ? aimed.slot : 0}
                held={new Set(held.filter((it) => it.universe === one.universe).map((it) => it.slot))}
                got={gotBy(against, one.universe, nodes ?? [], routes?.routes ?? [])}
                onPoint={(point) => setPlace(point === null ? null : { universe: one.universe, slot: point })}
                onChoose={(point) => setTarget({ universe: one.universe, slot: point })}
              />
            ),
        )}
      </Beside>
    </>
  );
}
