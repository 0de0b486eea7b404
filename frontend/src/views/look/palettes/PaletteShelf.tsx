import { useState } from "react";
import styled from "styled-components";

import { useActing, usePaletteEdits, type Palette } from "../../../api/palettes";
import { useDraft, usePalettes } from "../../../api/queries";
import { Button, Toggle } from "../../../ui/Button";
import { TextField } from "../../../ui/TextField";
import { KeepSheet } from "./KeepSheet";
import { PaletteFiles } from "./PaletteFiles";
import { PaletteSheet } from "./PaletteSheet";
import { PaletteTile } from "./PaletteTile";
import { shelves } from "./palettes";
import { SetSheet } from "./SetSheet";

const Panel = styled.section`
  display: flex;
  flex-direction: column;
  min-height: 0;
  height: 100%;
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 6px;
  padding-bottom: 4px;
  button {
    min-height: 30px;
    padding: 0 8px;
    font-size: 14px;
  }
  h2 {
    flex: 1;
  }
  input {
    min-height: 28px;
    width: 100%;
    padding: 0 8px;
    font-size: 14px;
  }
  > :last-child {
    flex: 1 1 100%;
  }
`;
const Find = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px;
`;
const Rows = styled.div`
  overflow: auto;
  flex: 1;
  min-height: 0;
  h3 {
    font-weight: 400;
    font-size: 13px;
    color: var(--quiet);
  }
  [role="group"] > div {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    padding-bottom: 4px;
  }
`;
const Said = styled.p`
  font-size: 13px;
  color: var(--quiet);
  min-height: 18px;
`;

/** Palettes beside the values: by name and picture, in rows by family, each with where it acts. */
export function PaletteShelf({ selection }: { selection: string[] }) {
  const { data } = usePalettes();
  const { data: acts } = useActing(selection);
  const { data: draft } = useDraft();
  const edits = usePaletteEdits();
  const [search, setSearch] = useState("");
  const [changes, setChanges] = useState(false);
  const [said, setSaid] = useState("");
  const [keeping, setKeeping] = useState(false);
  const [setting, setSetting] = useState(false);
  const [changed, setChanged] = useState<Palette | null>(null);
  const palettes = data?.palettes ?? [];
  const chosen = new Set(selection);
  const held = new Set(
    (draft?.listed ?? []).filter((one) => one.heads.some((key) => chosen.has(key))).map((one) => one.source),
  );
  const press = (palette: Palette) => {
    if (changes) setChanged(palette);
    else void edits.use(palette, selection).then((text) => setSaid(text ?? ""));
  };
  const rows = shelves(palettes, search);
  const open = palettes.find((one) => one.id === changed?.id);
  return (
    <Panel aria-label="Palettes">
      <Head>
        <h2>Palettes</h2>
        <Button onPress={() => setKeeping(true)}>Keep as …</Button>
        <Button onPress={() => setSetting(true)}>Make a set …</Button>
        <Toggle isSelected={changes} onChange={setChanges}>
          Change
        </Toggle>
        <Find>
          <TextField
            label="Search palettes"
            hideLabel
            placeholder="Search by name, family or set"
            value={search}
            onChange={setSearch}
          />
          <PaletteFiles palettes={rows.flatMap((row) => row.palettes)} />
        </Find>
      </Head>
      <Rows>
        {rows.map(({ title, palettes: row }) => (
          <div key={title} role="group" aria-label={`Palettes: ${title}`}>
            <h3>{title}</h3>
            <div>
              {row.map((one) => (
                <PaletteTile
                  key={one.id}
                  palette={one}
                  acts={acts?.[one.id]}
                  of={selection.length}
                  held={held.has(one.name)}
                  changes={changes}
                  onPress={() => press(one)}
                />
              ))}
            </div>
          </div>
        ))}
        {!rows.length && <Said>{search ? "No palette has these words." : "No palettes yet."}</Said>}
      </Rows>
      <Said aria-live="polite">
        {changes
          ? "Press a palette to change it."
          : said ||
            (selection.length ? "" : "With nothing selected, a palette acts on the heads it was made with.")}
      </Said>
      {keeping && draft && (
        <KeepSheet listed={draft.listed} selection={selection} onClose={() => setKeeping(false)} />
      )}
      {setting && <SetSheet onClose={() => setSetting(false)} />}
      {open && (
        <PaletteSheet
          key={open.id}
          palette={open}
          palettes={palettes}
          selection={selection}
          onClose={() => setChanged(null)}
        />
      )}
    </Panel>
  );
}
