import { useState } from "react";
import styled from "styled-components";

import { useCueEdits, type CueList } from "../../../api/cues";
import { useDraft } from "../../../api/queries";
import { desk, useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";
import { FAMILIES, FAMILY_TITLES, timesOf, type Family } from "../cues";

const Form = styled.div`
  display: grid;
  gap: 12px;
  width: 520px;
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
`;
const Times = styled.div`
  display: flex;
  gap: 16px;
`;
const FIRST_FADE_S = 2;

interface Props {
  list: CueList;
  /** The cue that is looked at: a new one comes behind it. */
  cue: number | null;
  onClose: () => void;
}

/** The draft as a new cue, or into one that is there. */
export function RecordSheet({ list, cue, onClose }: Props) {
  const edits = useCueEdits();
  const { data: draft } = useDraft();
  const selection = useDesk((state) => state.selection);
  const chosen = list.rows.find((row) => row.id === cue);
  const [where, setWhere] = useState("new");
  const [name, setName] = useState("");
  const [families, setFamilies] = useState<Family[]>([...FAMILIES]);
  const [effects, setEffects] = useState(true);
  const [selected, setSelected] = useState(false);
  const [fade, setFade] = useState(FIRST_FADE_S);
  const [out, setOut] = useState(list.rows.length === 0);
  const empty = !draft?.listed.length && !draft?.effects.length;
  const isNew = where === "new";
  const taken = { families, heads: selected ? selection : null, effects };

  async function record() {
    const all = { fade, delay: 0 };
    const times = timesOf({ intensity: { up: fade, down: fade }, position: all, colour: all, beam: all });
    const how = where as "merge" | "replace" | "take away";
    const made = isNew
      ? await edits.record(list.id, { ...taken, name, after: cue, times, everything_else_out: out })
      : await edits.recordInto(chosen!.id, { ...taken, how });
    if (!made) return;
    if (made.cue_id) desk.openList(list.id, made.cue_id);
    onClose();
  }
  return (
    <Sheet title={`Record into ${list.name}`} isOpen onClose={onClose}>
      <Form>
        {empty && isNew && <p>The draft is empty: this makes a cue that changes nothing.</p>}
        <Choice
          label="Where"
          value={where}
          options={[
            { id: "new", text: chosen ? `a new cue behind ${chosen.number} ${chosen.name}` : "a new cue" },
            ...(chosen
              ? [
                  { id: "merge", text: `into ${chosen.number} ${chosen.name}: what it has besides stays` },
                  { id: "replace", text: `in place of all that ${chosen.number} ${chosen.name} has` },
                  {
                    id: "take away",
                    text: `out of ${chosen.number} ${chosen.name}: what the draft names goes`,
                  },
                ]
              : []),
          ]}
          onChange={(key) => setWhere(String(key))}
        />
        {isNew && <TextField label="Name" value={name} onChange={setName} autoFocus />}
        <Row role="group" aria-label="What is taken">
          {FAMILIES.map((family) => (
            <Tick
              key={family}
              isSelected={families.includes(family)}
              onChange={(on) =>
                setFamilies((now) => FAMILIES.filter((one) => (one === family ? on : now.includes(one))))
              }
            >
              {FAMILY_TITLES[family]}
            </Tick>
          ))}
          <Tick isSelected={effects} onChange={setEffects}>
            Effects of the draft
          </Tick>
          {selection.length > 0 && (
            <Tick isSelected={selected} onChange={setSelected}>
              Only the {selection.length} chosen lights
            </Tick>
          )}
        </Row>
        {isNew && (
          <Times>
            <NumberField
              label="Fades in"
              unit="s"
              minValue={0}
              maxValue={3600}
              value={fade}
              onChange={(value) => setFade(value || 0)}
            />
            <Tick isSelected={out} onChange={setOut}>
              Everything else goes out
            </Tick>
          </Times>
        )}
      </Form>
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button onPress={() => void record()}>Record</Button>
      </Ending>
    </Sheet>
  );
}
