import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import type { Editor } from "./useEditor";
import { SentenceWords } from "./SentenceWords";

type Part = Schemas["SentencePart"];

const Line = styled.p`
  font-size: 18px;
  line-height: 31px;
  flex: 1;
  min-width: 0;
`;

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

/** A sentence whose values are the controls. */
export function SentenceLine({ parts, editor, label }: { parts: Part[]; editor: Editor; label: string }) {
  return (
    <Line role="group" aria-label={label} onKeyDown={walk}>
      <SentenceWords parts={parts} hands={editor.hands} isWarned={(slot) => isWarned(editor, slot)} />
    </Line>
  );
}
