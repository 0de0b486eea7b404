import type { Schemas } from "../../api/client";
import { rigEdits } from "../../api/rigEdits";
import { CostSheet, PasteSheet } from "./Questions";

export type Question =
  | { kind: "cost"; lines: string[]; numbers: number[]; column: string; text: string }
  | { kind: "delete"; lines: string[]; numbers: number[] }
  | { kind: "paste"; told: Schemas["PasteView"]; body: Schemas["PasteRows"] };

/** What is asked before something of the rig is done. */
export function RigQuestion({ question, onClose }: { question: Question; onClose: () => void }) {
  if (question.kind === "cost")
    return (
      <CostSheet
        title="Another mode takes something"
        lines={question.lines}
        nothing=""
        verb="Change it"
        onDo={() => void rigEdits.typed(question.numbers, question.column, question.text)}
        onClose={onClose}
      />
    );
  if (question.kind === "delete")
    return (
      <CostSheet
        title={
          question.numbers.length === 1
            ? `Delete fixture ${question.numbers[0]}?`
            : `Delete ${question.numbers.length} fixtures?`
        }
        lines={question.lines}
        nothing="Nothing uses them. Undo brings them back."
        verb="Delete"
        onDo={() => void rigEdits.remove(question.numbers)}
        onClose={onClose}
      />
    );
  return (
    <PasteSheet told={question.told} onDo={() => void rigEdits.paste(question.body)} onClose={onClose} />
  );
}
