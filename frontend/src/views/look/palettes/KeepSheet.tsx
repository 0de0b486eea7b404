import { useState } from "react";

import type { Schemas } from "../../../api/client";
import { usePaletteEdits } from "../../../api/palettes";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Ending, Sheet } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";
import { FAMILY_NAMES } from "./palettes";

type Scope = NonNullable<Schemas["KeepPalette"]["scope"]>;
type Family = Schemas["KeepPalette"]["families"][number];
const SCOPES: { id: Scope; text: string }[] = [
  { id: "any", text: "any head that can do it" },
  { id: "models", text: "heads of the same models" },
  { id: "heads", text: "these heads alone" },
];

interface Props {
  listed: Schemas["DraftedView"][];
  selection: string[];
  onClose: () => void;
}

/** Keep what is set by hand as a palette: which families of it, and for which heads. */
export function KeepSheet({ listed, selection, onClose }: Props) {
  const edits = usePaletteEdits();
  const chosen = new Set(selection);
  const ofSelection = listed.filter((one) => one.heads.some((key) => chosen.has(key)));
  const own = selection.length ? ofSelection : listed;
  const there = Object.keys(FAMILY_NAMES).filter((family) => own.some((one) => one.family === family));
  const [left, setLeft] = useState<string[]>([]);
  const families = there.filter((family) => !left.includes(family));
  const [name, setName] = useState("");
  const [wanted, setWanted] = useState<Scope | null>(null);
  const scope = wanted ?? (families.includes("position") ? "heads" : "any");
  const keep = async () => {
    const body = { name, heads: selection, families: families as Family[], scope };
    if (await edits.keep(body)) onClose();
  };
  return (
    <Sheet title="Keep as a palette" isOpen onClose={onClose}>
      {there.length ? (
        <>
          <TextField label="Name" value={name} onChange={setName} autoFocus />
          <div>
            {there.map((family) => (
              <Tick
                key={family}
                isSelected={families.includes(family)}
                onChange={(on) => setLeft(on ? left.filter((one) => one !== family) : [...left, family])}
              >
                {FAMILY_NAMES[family]}:{" "}
                {own
                  .filter((one) => one.family === family)
                  .map(({ label, words, source }) =>
                    `${label === FAMILY_NAMES[family] ? "" : label} ${words || source}`.trim(),
                  )
                  .join(", ")}
              </Tick>
            ))}
          </div>
          <Choice
            label="It acts on"
            options={SCOPES}
            value={scope}
            onChange={(id) => setWanted(id as Scope)}
          />
          <p>
            {selection.length
              ? "Kept is what is set by hand on the selected heads."
              : "Kept is what is set by hand on all heads."}
          </p>
        </>
      ) : (
        <p>
          Nothing is set by hand {selection.length ? "on these heads" : ""}. Set values first, or take them
          from the stage.
        </p>
      )}
      <Ending>
        <Button data-variant="plain" onPress={onClose}>
          Cancel
        </Button>
        <Button isDisabled={!name.trim() || !families.length} onPress={() => void keep()}>
          Keep it
        </Button>
      </Ending>
    </Sheet>
  );
}
