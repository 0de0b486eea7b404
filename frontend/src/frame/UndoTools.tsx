import { Redo2, Undo2 } from "lucide-react";
import { Tooltip, TooltipTrigger } from "react-aria-components";
import styled from "styled-components";

import { api, take } from "../api/client";
import { useEdit, useShow } from "../api/queries";
import { say } from "../ui/Toasts";
import { Button } from "../ui/Button";

const Row = styled.div`
  display: flex;
  gap: 2px;
  button {
    min-width: 40px;
    padding: 0;
  }
`;
const Hint = styled(Tooltip)`
  background: var(--bone);
  color: var(--on-bone);
  padding: 6px 10px;
  border-radius: 2px;
  font-size: 14px;
`;

/** Undo and redo of edits of the show, with what they would take. */
export function useUndo() {
  const undo = useEdit(async () => say(`Undone: ${(await take(api.POST("/api/undo"))).done}`, "done"));
  const redo = useEdit(async () => say(`Done again: ${(await take(api.POST("/api/redo"))).done}`, "done"));
  return { undo: () => undo.mutate(undefined), redo: () => redo.mutate(undefined) };
}

/** The two buttons. */
export function UndoTools() {
  const { data: steps } = useShow(({ undo, redo }) => ({ undo, redo }));
  const { undo, redo } = useUndo();
  return (
    <Row>
      <TooltipTrigger delay={300}>
        <Button data-variant="plain" aria-label="Undo" isDisabled={!steps?.undo} onPress={undo}>
          <Undo2 size={18} aria-hidden="true" />
        </Button>
        <Hint>Undo: {steps?.undo} (Ctrl+Z)</Hint>
      </TooltipTrigger>
      <TooltipTrigger delay={300}>
        <Button data-variant="plain" aria-label="Redo" isDisabled={!steps?.redo} onPress={redo}>
          <Redo2 size={18} aria-hidden="true" />
        </Button>
        <Hint>Redo: {steps?.redo} (Ctrl+Shift+Z)</Hint>
      </TooltipTrigger>
    </Row>
  );
}
