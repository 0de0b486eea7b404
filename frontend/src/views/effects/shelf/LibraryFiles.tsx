import { useRef, useState } from "react";
import styled from "styled-components";

import { api, take, type Schemas } from "../../../api/client";
import { useEdit } from "../../../api/queries";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";
import { say } from "../../../ui/Toasts";
import { saveFile } from "./files";

const Faults = styled.ul`
  margin: 0;
  padding-left: 18px;
  max-width: 60ch;
  display: grid;
  gap: 6px;
`;

/** Effects from a file, and the library into one. */
export function LibraryFiles({ effects }: { effects: Schemas["EffectView"][] }) {
  const file = useRef<HTMLInputElement>(null);
  const [refused, setRefused] = useState<string[]>([]);
  const read = useEdit(async (chosen: File) => {
    let content: unknown;
    try {
      content = JSON.parse(await chosen.text());
    } catch {
      say(`${chosen.name} is not JSON. Choose a file that Zarabanda exported.`);
      return;
    }
    const {
      effects: names,
      refused: faults,
      remarks,
    } = await take(api.POST("/api/effects/import", { body: { content } }));
    setRefused(faults);
    for (const remark of remarks) say(remark);
    if (names.length) say(`Imported ${names.join(", ")}.`, "done");
  });
  return (
    <>
      <ActionMenu
        label="Library"
        variant="full"
        onAction={(id) => {
          if (id === "import") file.current?.click();
          else
            saveFile("library", {
              format: "zarabanda.effects/1",
              effects: effects.map((one) => one.document),
            });
        }}
        actions={[
          { id: "import", text: "Import effects from a file" },
          { id: "export", text: `Export the ${effects.length} shown` },
        ]}
      />
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="Effect file"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) read.mutate(chosen);
          event.target.value = "";
        }}
      />
      <Sheet title="Not everything could be read" isOpen={refused.length > 0} onClose={() => setRefused([])}>
        <p>The effects that are whole were imported. These were not:</p>
        <Faults>
          {refused.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </Faults>
        <Ending>
          <Button onPress={() => setRefused([])}>Close</Button>
        </Ending>
      </Sheet>
    </>
  );
}
