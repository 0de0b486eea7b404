import { useState } from "react";
import styled from "styled-components";

import type { BuskRow, Section } from "../../../api/busk";
import type { Schemas } from "../../../api/client";
import { useActing } from "../../../api/palettes";
import { usePixels } from "../../../api/pixels";
import { useLibrary, usePalettes } from "../../../api/queries";
import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";

const List = styled.div`
  width: 620px;
  height: 42vh;
  overflow: auto;
  border: 1px solid var(--line);
  padding: 4px 12px;
  columns: 2;
  label {
    break-inside: avoid;
  }
  i {
    width: 20px;
    height: 20px;
    flex: none;
  }
  small {
    color: var(--quiet);
  }
`;

interface Choice {
  id: string;
  pad: Schemas["PadContent"];
  name: string;
  colour: string | undefined;
  words: string;
}

interface Props {
  row: BuskRow;
  section: Section;
  onClose: () => void;
  onAdd: (pads: Schemas["PadContent"][]) => Promise<unknown>;
}

/** Palettes or effects that are put on pads of a row, several at once. */
export function AddPadsSheet({ row, section, onClose, onAdd }: Props) {
  const { data: palettes } = usePalettes();
  const { data: library } = useLibrary();
  const { data: acts } = useActing(row.heads);
  const [chosen, setChosen] = useState<string[]>([]);
  const [search, setSearch] = useState("");
  const effects = section === "effects";
  const { data: pixels } = usePixels(effects);
  const plain = { name: "", while_held: false };
  const onMaps = (pixels?.maps ?? []).flatMap((map) => [
    { map: map.id, picture: 0, name: `${map.name}, its own layers` },
    ...pixels!.pictures.map((one) => ({ map: map.id, picture: one.id, name: `${one.name} on ${map.name}` })),
  ]);
  const found: Choice[] = effects
    ? [
        ...(library?.effects ?? []).map((one) => ({
          id: `effect ${one.id}`,
          pad: { ...plain, effect: one.id },
          name: one.name,
          colour: undefined,
          words: one.families.join(", "),
        })),
        ...onMaps.map(({ map, picture, name }) => ({
          id: `pixels ${map} ${picture}`,
          pad: { ...plain, pixels: { map, picture } },
          name,
          colour: undefined,
          words: "pixels",
        })),
      ]
    : (palettes?.palettes ?? [])
        .filter((one) => one.family === section)
        .map((one) => ({
          id: `palette ${one.id}`,
          pad: { ...plain, palette: one.id },
          name: one.name,
          colour: one.picture.colours[0],
          words: acts?.[one.id] ? "" : "does nothing on these lights",
        }));
  const shown = found.filter((one) => one.name.toLowerCase().includes(search.trim().toLowerCase()));
  async function add() {
    const pads = chosen.map((id) => found.find((one) => one.id === id)!.pad);
    if (await onAdd(pads)) onClose();
  }
  return (
    <Sheet title={`Add pads to ${row.name}`} isOpen onClose={onClose}>
      <TextField
        label="Search"
        hideLabel
        placeholder="Search by name"
        value={search}
        onChange={setSearch}
        autoFocus
      />
      <List>
        {shown.map((one) => (
          <Tick
            key={one.id}
            isSelected={chosen.includes(one.id)}
            onChange={(on) =>
              setChosen((before) => (on ? [...before, one.id] : before.filter((id) => id !== one.id)))
            }
          >
            {one.colour && <i style={{ background: one.colour }} />}
            <span>
              {one.name} <small>{one.words}</small>
            </span>
          </Tick>
        ))}
        {shown.length === 0 && <p>Nothing is called so. Keep palettes in Look, and effects in Effects.</p>}
      </List>
      <Ending>
        <Button data-variant="plain" onPress={onClose}>
          Leave it
        </Button>
        <Button isDisabled={!chosen.length} onPress={() => void add()}>
          Add {chosen.length || ""} {chosen.length === 1 ? "pad" : "pads"}
        </Button>
      </Ending>
    </Sheet>
  );
}
