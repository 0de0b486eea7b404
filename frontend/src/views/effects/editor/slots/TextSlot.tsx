import { useState } from "react";

import { TextField } from "../../../../ui/TextField";
import type { SlotProps } from "./Slot";

const MOST = 200;

/** Letters, seen while they are typed. */
export function TextSlot({ part, editor, close }: SlotProps) {
  const [typed, setTyped] = useState(String(part.value));
  const change = (value: string) => ({ operation: "set" as const, path: part.slot!, value });
  const problem = typed.length > MOST ? `${typed.length} letters; ${MOST} are the most` : undefined;
  function keep() {
    if (typed && !problem && typed !== part.value) void editor.commit(change(typed));
  }
  return (
    <TextField
      label={part.label ?? "Text"}
      autoFocus
      value={typed}
      problem={problem}
      onChange={(next) => {
        setTyped(next);
        if (next && next.length <= MOST) editor.preview(change(next));
      }}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === "Enter") {
          keep();
          close();
        }
      }}
    />
  );
}
