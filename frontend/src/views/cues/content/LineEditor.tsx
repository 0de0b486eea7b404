import { useState } from "react";
import { Dialog } from "react-aria-components";
import styled from "styled-components";

import { useCueEdits, type CueContent } from "../../../api/cues";
import type { Schemas } from "../../../api/client";
import { usePalettes } from "../../../api/queries";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { TextField } from "../../../ui/TextField";

const Body = styled(Dialog)`
  outline: none;
  display: grid;
  gap: 12px;
  width: 320px;
  h3 {
    font-size: 16px;
  }
  p {
    color: var(--quiet);
    font-size: 14px;
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;
const OWN = "own";
const HEX = /^#[0-9a-f]{6}$/i;

interface Props {
  cue: CueContent;
  line: Schemas["ContentLine"];
  group: string;
}

/** Another value for a line of a cue: here, or, for what was carried on, where it came from; and where it holds. */
export function LineEditor({ cue, line, group }: Props) {
  const edits = useCueEdits();
  const { data: known } = usePalettes();
  const colour = line.attribute === "colour";
  const first = colour
    ? (line.colours[0] ?? "#ffffff")
    : String(parseFloat(line.words.replace("−", "-")) || 0);
  const [typed, setTyped] = useState(first);
  const position = line.attribute === "position";
  const held = known?.palettes.find((one) => one.name === line.palette)?.id ?? null;
  const [picked, setPicked] = useState<number | null | undefined>();
  const palette = picked === undefined ? held : picked;
  const fitting = known?.palettes.filter((one) =>
    colour ? one.family === "colour" : one.family === line.family,
  );
  const number = Number(typed);
  const wrong = palette === null && (position || (colour ? !HEX.test(typed) : Number.isNaN(number)));
  const value = palette !== null ? { palette } : colour ? typed : number;
  const heads = line.heads;
  const set = (where: "here" | "origin", close: () => void) => {
    void edits.values(cue.id, { attribute: line.attribute, heads, value, where });
    close();
  };
  const mark = (mark: Schemas["ValueMark"]["mark"], close: () => void) => {
    void edits.mark(cue.id, { attribute: line.attribute, heads, mark });
    close();
  };
  return (
    <Body aria-label={`${group}, ${line.label}`}>
      {({ close }) => (
        <>
          <h3>
            {group}: {line.label}
          </h3>
          {!!fitting?.length && (
            <Choice
              label="Palette"
              value={palette ?? OWN}
              options={[
                ...(position ? [] : [{ id: OWN, text: "a value of its own" }]),
                ...fitting.map(({ id, name }) => ({ id, text: name })),
              ]}
              onChange={(key) => setPicked(key === OWN ? null : Number(key))}
            />
          )}
          {palette === null &&
            !position &&
            (colour ? (
              <TextField
                label="Colour"
                value={typed}
                onChange={setTyped}
                problem={wrong ? "A colour is written as # and six digits, such as #ff8000." : ""}
              />
            ) : (
              <NumberField label={line.label} value={number} onChange={(to) => setTyped(String(to))} />
            ))}
          {line.origin !== null && (
            <p>
              This was carried on from cue {line.origin}. Changed here, it holds from this cue on; changed
              there, it holds from there on.
            </p>
          )}
          <Row>
            <Button isDisabled={wrong} onPress={() => set("here", close)}>
              {line.origin === null ? "Set" : "Set here"}
            </Button>
            {line.origin !== null && (
              <Button isDisabled={wrong} onPress={() => set("origin", close)}>
                Set in cue {line.origin}
              </Button>
            )}
          </Row>
          <Row>
            <Button data-variant="small" onPress={() => mark("stops here", close)}>
              Stops here
            </Button>
            {line.only_here ? (
              <Button data-variant="small" onPress={() => mark("from here on", close)}>
                Holds from here on
              </Button>
            ) : (
              <Button data-variant="small" onPress={() => mark("only here", close)}>
                Only here
              </Button>
            )}
            {line.written && (
              <Button data-variant="small" onPress={() => mark("taken out", close)}>
                Take out
              </Button>
            )}
          </Row>
        </>
      )}
    </Body>
  );
}
