import { Fragment } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import type { Editor } from "./useEditor";
import { Slot } from "./slots/Slot";

type Part = Schemas["SentencePart"];

const Line = styled.p`
  font-size: 18px;
  line-height: 31px;
  flex: 1;
  min-width: 0;
`;
const SIGNS = /^[,.)]/;

/** Move the focus to the next or previous value of the sentences. */
function walk(event: React.KeyboardEvent) {
  if (event.key !== "ArrowRight" && event.key !== "ArrowLeft") return;
  const slots = [...document.querySelectorAll<HTMLElement>("[data-slot]")];
  const here = slots.indexOf(document.activeElement as HTMLElement);
  const next = slots[here + (event.key === "ArrowRight" ? 1 : -1)];
  if (here >= 0 && next) {
    event.preventDefault();
    next.focus();
  }
}

/** Whether a warning concerns this value, and not the whole effect. */
const isWarned = (editor: Editor, slot: string) =>
  !!editor.weave?.notices.some(
    (notice) =>
      !notice.note &&
      notice.path !== "layers" &&
      (notice.path === slot || slot.startsWith(`${notice.path}.`)),
  );

/** A value, and the sign behind it on the same line. */
const Together = styled.span`
  white-space: nowrap;
  button {
    white-space: normal;
  }
`;

/** A sentence whose values are the controls. */
export function SentenceLine({ parts, editor, label }: { parts: Part[]; editor: Editor; label: string }) {
  return (
    <Line role="group" aria-label={label} onKeyDown={walk}>
      {parts.map((part, n) => {
        const before = parts[n - 1];
        const sign = SIGNS.exec(parts[n + 1]?.text ?? "")?.[0] ?? "";
        const text = before?.slot && SIGNS.test(part.text) ? part.text.slice(1).trimStart() : part.text;
        const joined = !before?.slot && SIGNS.test(text);
        const space = n > 0 && text && !joined && !before!.text.endsWith("(") ? " " : "";
        return (
          <Fragment key={part.slot ?? `word ${n}`}>
            {space}
            {part.slot ? (
              <Together>
                <Slot part={part} editor={editor.hands} warned={isWarned(editor, part.slot)} />
                {sign}
              </Together>
            ) : (
              text
            )}
          </Fragment>
        );
      })}
    </Line>
  );
}
