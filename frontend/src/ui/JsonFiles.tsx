import { useRef, useState } from "react";
import styled from "styled-components";

import { ActionMenu } from "./ActionMenu";
import { Button } from "./Button";
import { Ending, Sheet } from "./Sheet";
import { say } from "./Toasts";

const Faults = styled.ul`
  margin: 0;
  padding-left: 18px;
  max-width: 60ch;
  display: grid;
  gap: 6px;
`;
export interface ReadFile {
  names: string[];
  refused: string[];
  remarks?: string[];
}
interface Props {
  label: string;
  /** What is in such a file: effects, palettes. */
  what: string;
  variant?: "full" | "small";
  /** How many would be saved. */
  count: number;
  onRead: (content: unknown) => Promise<ReadFile | null>;
  onSave: () => void;
}

/** Things from a file of JSON, and into one; what could not be read is told. */
export function JsonFiles({ label, what, variant = "full", count, onRead, onSave }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const [refused, setRefused] = useState<string[]>([]);
  async function read(chosen: File) {
    let content: unknown;
    try {
      content = JSON.parse(await chosen.text());
    } catch {
      say(`${chosen.name} is not JSON. Choose a file that Zarabanda exported.`);
      return;
    }
    const found = await onRead(content);
    if (!found) return;
    setRefused(found.refused);
    for (const remark of found.remarks ?? []) say(remark);
    if (found.names.length) say(`Imported ${found.names.join(", ")}.`, "done");
  }
  return (
    <>
      <ActionMenu
        label={label}
        variant={variant}
        onAction={(id) => (id === "import" ? file.current?.click() : onSave())}
        actions={[
          { id: "import", text: `Import ${what} from a file` },
          { id: "export", text: `Export the ${count} shown`, disabled: !count },
        ]}
      />
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label={`A file of ${what}`}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) void read(chosen);
          event.target.value = "";
        }}
      />
      <Sheet title="Not everything could be read" isOpen={refused.length > 0} onClose={() => setRefused([])}>
        <p>The {what} that are whole were imported. These were not:</p>
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
