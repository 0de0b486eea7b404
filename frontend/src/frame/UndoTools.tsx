import { Redo2, Undo2 } from "lucide-react";
import { TooltipTrigger } from "react-aria-components";
import styled from "styled-components";

import { api, take } from "../api/client";
import { useEdit, useShow } from "../api/queries";
import { ThemeTool } from "./ThemeTool";
import { say } from "../ui/Toasts";
import { Button } from "../ui/Button";
import { Hint } from "../ui/Hint";

const Row = styled.div`
  display: flex;
  gap: 2px;
  button {
    min-width: 36px;
    padding: 0;
  }
`;
/** Undo and redo of edits of the show, with what they would take. */
export function useUndo() {
  const undo = useEdit(async () => say(`Undone: ${(await take(api.POST("/api/undo"))).done}`, "done"));
  const redo = useEdit(async () => say(`Done again: ${(await take(api.POST("/api/redo"))).done}`, "done"));
  return { undo: () => undo.mutate(undefined), redo: () => redo.mutate(undefined) };
}

/** The two buttons, and that of the theme. */
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
      <ThemeTool />
    </Row>
  );
}
