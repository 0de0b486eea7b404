import { useState } from "react";
import styled from "styled-components";

import { lookEdits } from "../../../api/looks";
import { useDraft } from "../../../api/queries";
import { useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";
import { say } from "../../../ui/Toasts";
import { KINDS, KEPT, SOURCES, type Source } from "./choices";
import { usePutOn } from "./usePutOn";

const Form = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 20px;
  width: 560px;
`;
const Ticks = styled.div`
  grid-column: 1 / 3;
  display: flex;
  gap: 4px 18px;
  flex-wrap: wrap;
`;
const PLACES = [
  { id: "none", text: "nothing yet" },
  { id: "fader", text: "the next free fader" },
  { id: "latch", text: "the next free button, on and off" },
  { id: "flash", text: "the next free button, while held" },
] as const;

/** Values and effects kept as one thing: as a look, or as an overlay that is mixed in over what runs. */
export function KeepLookSheet({ onClose }: { onClose: () => void }) {
  const { data: draft } = useDraft();
  const selection = useDesk((state) => state.selection);
  const putOn = usePutOn();
  const drafted = !!draft?.listed.length || !!draft?.effects.length;
  const [name, setName] = useState("");
  const [over, setOver] = useState(false);
  const [source, setSource] = useState<Source>(drafted ? "draft" : "stage");
  const [kept, setKept] = useState("all");
  const [effects, setEffects] = useState(true);
  const [selected, setSelected] = useState(false);
  const [times, setTimes] = useState({ in_s: 0.5, out_s: 1 });
  const [place, setPlace] = useState<(typeof PLACES)[number]["id"]>("none");
  async function keep() {
    const made = await lookEdits.make({
      name: name.trim(),
      over,
      source,
      effects,
      families: KEPT.find((one) => one.id === kept)!.families,
      heads: selected ? selection : null,
      ...times,
    });
    if (!made) return;
    const where = place === "none" ? "" : await putOn(made.id, name.trim(), place);
    say(`${name.trim()} is kept${where && ` on ${where}`}.`, "done");
    onClose();
  }
  const seconds = (label: string, key: "in_s" | "out_s") => (
    <NumberField
      label={label}
      unit="s"
      minValue={0}
      maxValue={3600}
      step={0.1}
      value={times[key]}
      onChange={(value) => Number.isFinite(value) && setTimes({ ...times, [key]: value })}
    />
  );
  return (
    <Sheet title="Keep a look" isOpen onClose={onClose}>
      <Form>
        <TextField label="Name" value={name} onChange={setName} autoFocus maxLength={80} />
        <Choice
          label="As"
          options={KINDS}
          value={over ? "overlay" : "look"}
          onChange={(key) => setOver(key === "overlay")}
        />
        <Choice
          label="Made of"
          options={SOURCES}
          value={source}
          onChange={(key) => setSource(key as Source)}
        />
        <Choice
          label="Keep of it"
          options={KEPT.map(({ id, text }) => ({ id, text }))}
          value={kept}
          onChange={(key) => setKept(String(key))}
        />
        <Ticks>
          <Tick isSelected={effects} onChange={setEffects}>
            With the effects that run
          </Tick>
          {selection.length > 0 && (
            <Tick isSelected={selected} onChange={setSelected}>
              Only the {selection.length} chosen lights
            </Tick>
          )}
        </Ticks>
        {seconds("Comes in", "in_s")}
        {seconds("Goes in", "out_s")}
        <div style={{ gridColumn: "1 / 3" }}>
          <Choice
            label="Put it on"
            options={[...PLACES]}
            value={place}
            onChange={(key) => setPlace(key as typeof place)}
          />
        </div>
      </Form>
      <Ending>
        <Button data-variant="plain" onPress={onClose}>
          Leave it
        </Button>
        <Button isDisabled={!name.trim()} onPress={() => void keep()}>
          Keep
        </Button>
      </Ending>
    </Sheet>
  );
}
