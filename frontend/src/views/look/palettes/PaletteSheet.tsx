import { useState } from "react";
import styled from "styled-components";

import { usePaletteEdits, type Palette } from "../../../api/palettes";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { FAMILY_NAMES } from "./palettes";

const Line = styled.div`
  display: flex;
  align-items: end;
  gap: 8px;
  flex-wrap: wrap;
`;
const SCOPES = {
  any: "acts on any head that can do it",
  models: "acts on heads of the models it was made with",
  heads: "acts on the heads it was made with",
};
const VALUES = "its values";

interface Props {
  palette: Palette;
  palettes: Palette[];
  selection: string[];
  onClose: () => void;
}

/** Everything that can be done with a palette, and where it is used. */
export function PaletteSheet({ palette, palettes, selection, onClose }: Props) {
  const edits = usePaletteEdits();
  const [name, setName] = useState(palette.name);
  const [other, setOther] = useState<number | typeof VALUES | null>(null);
  const others = palettes.filter((one) => one.id !== palette.id && one.family === palette.family);
  const used = palette.used_by.length > 0;
  const move = (by: number) => {
    const ids = palettes.map((one) => one.id);
    const row = palettes.filter((one) => one.family === palette.family && one.set === palette.set);
    const beside = row[row.findIndex((one) => one.id === palette.id) + by];
    if (!beside) return;
    const [a, b] = [ids.indexOf(palette.id), ids.indexOf(beside.id)];
    [ids[a], ids[b]] = [ids[b]!, ids[a]!];
    void edits.order(ids);
  };
  const put = (gone: boolean) =>
    void edits
      .replace(palette.id, other === VALUES ? null : (other as number), gone)
      .then((done) => done && gone && onClose());
  return (
    <Sheet title={palette.name} isOpen onClose={onClose}>
      <p>
        {FAMILY_NAMES[palette.family]}; {SCOPES[palette.scope]}.
      </p>
      <Line>
        <TextField label="Name" value={name} onChange={setName} />
        <Button
          isDisabled={!name.trim() || name === palette.name}
          onPress={() => void edits.rename(palette.id, { name })}
        >
          Rename
        </Button>
        <Button onPress={() => move(-1)}>Move earlier</Button>
        <Button onPress={() => move(1)}>Move later</Button>
      </Line>
      <Line>
        <Button onPress={() => void edits.update(palette.id, selection)}>
          Update from the draft{selection.length ? ` of ${selection.length} selected` : ""}
        </Button>
        <Button onPress={() => void edits.duplicate(palette.id)}>Duplicate</Button>
        {palette.way && (
          <Button onPress={() => void edits.rename(palette.id, { way: "" })}>
            Let colours go the show’s way
          </Button>
        )}
      </Line>
      <p>{used ? `Used by ${palette.used_by.join(", ")}.` : "Nothing uses it."}</p>
      <Line>
        <Choice
          label="Another palette, or its values"
          options={[
            { id: VALUES, text: "its values" },
            ...others.map(({ id, name: text }) => ({ id, text })),
          ]}
          value={other}
          placeholder="choose one"
          onChange={(id) => setOther(id as number | typeof VALUES)}
        />
        <Button isDisabled={!used || other === null} onPress={() => put(false)}>
          Use that instead
        </Button>
        <Button
          isDisabled={other === null || other === VALUES}
          onPress={() => void edits.merge(palette.id, other as number)}
        >
          Take that in
        </Button>
      </Line>
      <Ending>
        {used ? (
          <Button isDisabled={other === null} onPress={() => put(true)}>
            {other === null ? "Delete: choose what takes its place" : "Replace it and delete"}
          </Button>
        ) : (
          <Button onPress={() => void edits.remove(palette.id).then((done) => done && onClose())}>
            Delete
          </Button>
        )}
        <Button data-variant="plain" onPress={onClose}>
          Close
        </Button>
      </Ending>
    </Sheet>
  );
}
