import { useState } from "react";
import styled from "styled-components";

import {
  freePlaces,
  pageEdits,
  usePages,
  type BankPage,
  type Control,
  type Driven,
  type Kind,
  type Mode,
} from "../../../api/pages";
import { desk } from "../../../state";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { DrivesFields, isWhole, useOptions } from "./DrivesFields";
import { BUTTON_JOBS, FADER_JOBS, fresh, MODES, TURNS } from "./kinds";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 20px;
  width: 600px;
  > .wide {
    grid-column: 1 / 3;
  }
`;
const Left = styled.div`
  flex: 1;
  display: flex;
  gap: 8px;
`;
const JOBS = [
  { id: "depth", text: "its depth" },
  { id: "speed", text: "its speed" },
  { id: "both", text: "its depth and its speed" },
];

interface Props {
  control: Control | null;
  fader: boolean;
  place: number;
  page: BankPage;
  onClose: () => void;
}

/** What is on a fader or button: chosen in words, changed, moved, or taken off. */
export function ControlSheet({ control, fader, place, page, onClose }: Props) {
  const { data } = usePages();
  const jobs = fader ? FADER_JOBS : BUTTON_JOBS;
  const [drives, setDrives] = useState<Driven>(control?.drives ?? fresh(jobs[0]!.id, fader));
  const [mode, setMode] = useState<Mode>(control?.mode ?? (fader ? "fader" : "latch"));
  const [job, setJob] = useState<Control["job"]>(control?.job ?? "depth");
  const [release, setRelease] = useState(control?.release_s ?? 0.4);
  const [name, setName] = useState(control?.name ?? "");
  const [at, setAt] = useState(place);
  const turns = TURNS.includes(drives.kind) && !(drives.kind === "special" && drives.number == null);
  const acts: Mode = fader ? "fader" : turns ? mode : "flash";
  const most = (fader ? data?.faders : data?.buttons) ?? 0;
  const free = new Set(freePlaces(page.controls, fader, most));
  const where = fader ? "Fader" : "Button";
  const options = useOptions()[drives.kind];
  const of = options?.find((one) => one.id === drives.number)?.text.split(",")[0];
  const called = name.trim() || of || jobs.find((one) => one.id === drives.kind)!.text;
  async function keep() {
    const body = { name: called.slice(0, 80), mode: acts, job, release_s: release, drives };
    const done = control
      ? await pageEdits.change(control.id, { ...body, place: at })
      : await pageEdits.put(page.id, { ...body, place: at });
    if (done) onClose();
  }
  const takeOff = async () => (await pageEdits.takeOff(control!)) && onClose();
  return (
    <Sheet title={`${where} ${place} of ${page.name}`} isOpen onClose={onClose}>
      <Grid>
        <div className="wide">
          <Choice
            label={fader ? "The fader moves" : "The button does"}
            options={jobs}
            value={drives.kind}
            onChange={(kind) => setDrives(fresh(kind as Kind, fader))}
          />
        </div>
        <DrivesFields drives={drives} fader={fader} options={options} onChange={setDrives} />
        {fader && drives.kind === "effect" && (
          <Choice
            label="The fader sets"
            options={JOBS}
            value={job}
            onChange={(id) => setJob(id as Control["job"])}
          />
        )}
        {!fader && turns && (
          <Choice label="Acts" options={MODES} value={mode} onChange={(id) => setMode(id as Mode)} />
        )}
        {!fader && (drives.kind === "effect" || drives.kind === "alone") && (
          <NumberField
            label="Goes in"
            unit="s"
            minValue={0}
            maxValue={60}
            step={0.1}
            value={release}
            onChange={(seconds) => Number.isFinite(seconds) && setRelease(seconds)}
          />
        )}
        <TextField label="Name" value={name} onChange={setName} maxLength={80} placeholder={called} />
        <Choice
          label="Place"
          options={Array.from({ length: most }, (_, n) => ({
            id: n + 1,
            text: `${where} ${n + 1}${n + 1 === place ? "" : free.has(n + 1) ? ", free" : control ? ", changes places" : ", taken"}`,
          })).filter((one) => control || one.id === place || free.has(one.id))}
          value={at}
          onChange={(id) => setAt(Number(id))}
        />
      </Grid>
      <Ending>
        {control && (
          <Left>
            <Button data-variant="plain" onPress={() => void takeOff()}>
              Take it off
            </Button>
            {control.drives.kind === "effect" && !control.gone && (
              <Button
                data-variant="plain"
                onPress={() => {
                  desk.open(control.drives.number!, control.key);
                  desk.select(control.heads);
                  desk.show("effects");
                }}
              >
                Edit the effect
              </Button>
            )}
          </Left>
        )}
        <Button data-variant="plain" onPress={onClose}>
          Leave it
        </Button>
        <Button isDisabled={!isWhole(drives)} onPress={() => void keep()}>
          {control ? "Keep" : "Put it there"}
        </Button>
      </Ending>
    </Sheet>
  );
}
