import { useCallback, useRef, useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useKinds } from "../../../api/queries";
import type { Rig } from "../../../api/rig";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { TextField } from "../../../ui/TextField";
import { rigEdits } from "../../../api/rigEdits";
import { GdtfSheet } from "./GdtfSheet";
import { KindList } from "./KindList";
import { NewKindSheet } from "./NewKindSheet";

const Frame = styled.section`
  display: grid;
  grid-template-rows: minmax(120px, 1fr) auto;
  gap: 8px;
  height: 100%;
  min-height: 0;
`;
const Form = styled.form`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  border-top: 1px solid var(--line);
  padding: 8px 0;
  gap: 4px 8px;
  padding: 6px 0;
  .react-aria-Label {
    font-size: 13px;
    line-height: 1.2;
  }
  input {
    width: 3.3em;
    min-height: 30px;
  }
  [role="group"],
  button {
    min-height: 34px;
  }
  .name input {
    min-height: 34px;
    width: 104px;
  }
`;
const NAMES = ["x", "y", "z"] as const;
const MOUNTINGS = ["hanging", "standing", "on the left", "on the right"].map((id) => ({ id, text: id }));
const ADDRESSES = [
  { id: "next free", text: "next free" },
  { id: "in order", text: "exactly from" },
  { id: "none", text: "none yet" },
];

/** Add fixtures of one mode: which, how many, from which number, address and place on. */
export function AddLights({
  rig,
  onAdded,
  onKind,
}: {
  rig: Rig;
  onAdded: (numbers: number[]) => void;
  onKind: (name: string) => void;
}) {
  const { data } = useKinds();
  const [making, setMaking] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const closeFile = useCallback(() => setFile(null), []);
  const [mode, setMode] = useState<Schemas["KindView"] | null>(null);
  const [name, setName] = useState("");
  const [count, setCount] = useState(8);
  const first = 1 + Math.max(0, ...rig.fixtures.map((fixture) => fixture.number));
  const [number, setNumber] = useState<number | null>(null);
  const [addresses, setAddresses] = useState<"next free" | "in order" | "none">("next free");
  const [universe, setUniverse] = useState(1);
  const [address, setAddress] = useState(1);
  const [place, setPlace] = useState<[number, number, number]>([-3.5, 2, 5]);
  const [spacing, setSpacing] = useState(1);
  const [mounting, setMounting] = useState("hanging");
  async function add() {
    if (!mode) return;
    const done = await rigEdits.add({
      mode: mode.name,
      count,
      number: number ?? first,
      name: name || mode.model,
      addresses,
      universe,
      address,
      place,
      spacing: [spacing, 0, 0],
      mounting: mounting as Schemas["AddFixtures"]["mounting"],
    });
    if (done) {
      setNumber(null);
      onAdded(done.numbers ?? []);
    }
  }
  return (
    <Frame aria-label="Add lights">
      <KindList kinds={data?.kinds ?? []} chosen={mode?.name ?? null} onChoose={setMode}>
        <ActionMenu
          label="Kinds"
          opener="Kinds"
          variant="small"
          actions={[
            { id: "open", text: mode ? `Open ${mode.name}` : "Open the chosen kind", disabled: !mode },
            { id: "file", text: "Take in a GDTF file …" },
            { id: "make", text: "Make one from its channels …" },
          ]}
          onAction={(id) => {
            if (id === "open") onKind(mode!.name);
            else if (id === "file") chooser.current!.click();
            else setMaking(true);
          }}
        />
      </KindList>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <NumberField label="How many" minValue={1} maxValue={5000} value={count} onChange={setCount} />
        <NumberField
          label="First number"
          minValue={1}
          maxValue={99999}
          formatOptions={{ useGrouping: false }}
          value={number ?? first}
          onChange={setNumber}
        />
        <div className="name">
          <TextField label="Name" value={name} placeholder={mode?.model ?? ""} onChange={setName} />
        </div>
        <Choice
          label="Address"
          options={ADDRESSES}
          value={addresses}
          onChange={(key) => setAddresses(key as typeof addresses)}
        />
        {addresses !== "none" && (
          <>
            <NumberField
              label="Universe"
              minValue={1}
              maxValue={63999}
              formatOptions={{ useGrouping: false }}
              value={universe}
              onChange={setUniverse}
            />
            <NumberField label="From" minValue={1} maxValue={512} value={address} onChange={setAddress} />
          </>
        )}
        {NAMES.map((axis, n) => (
          <NumberField
            key={axis}
            label={n ? axis : "First at x"}
            unit="m"
            step={0.1}
            value={place[n]!}
            onChange={(value) => setPlace(place.map((one, at) => (at === n ? value : one)) as typeof place)}
          />
        ))}
        <NumberField label="Apart" unit="m" step={0.1} value={spacing} onChange={setSpacing} />
        <Choice
          label="Mounted"
          options={MOUNTINGS}
          value={mounting}
          onChange={(key) => setMounting(String(key))}
        />
        <Button type="submit" isDisabled={!mode}>
          {mode ? `Add ${count} ${count === 1 ? "light" : "lights"}` : "Choose a kind first"}
        </Button>
        <input
          ref={chooser}
          type="file"
          accept=".gdtf"
          aria-label="A GDTF file"
          hidden
          onChange={(event) => {
            setFile(event.target.files?.[0] ?? null);
            event.target.value = "";
          }}
        />
      </Form>
      {making && (
        <NewKindSheet
          onClose={() => setMaking(false)}
          onMade={(name) => {
            setMaking(false);
            onKind(name);
          }}
        />
      )}
      {file && (
        <GdtfSheet
          file={file}
          onClose={closeFile}
          onDone={(name) => {
            closeFile();
            onKind(name);
          }}
        />
      )}
    </Frame>
  );
}
