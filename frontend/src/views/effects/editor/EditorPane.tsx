import { useDeferredValue, useState } from "react";
import styled from "styled-components";

import { Broken } from "./Broken";
import { useCompare } from "../weave/compare";
import { EffectTitle } from "./EffectTitle";
import { Gone } from "./Gone";
import { Lights } from "./Lights";
import { Sentences } from "./Sentences";
import { SidePanel } from "./SidePanel";
import { useEditor, type Editor } from "./useEditor";
import { Weave } from "../weave/Weave";
import { WeaveTools } from "../weave/WeaveTools";

const Pane = styled.section`
  padding: 4px 20px 8px 16px;
  display: flex;
  flex-direction: column;
  gap: 2px;
`;
const Woven = styled.div`
  flex: 1 0 144px;
  min-height: 144px;
  display: flex;
  flex-direction: column;
  border-top: 1px solid var(--line);
  padding-top: 4px;
`;
const SideBySide = styled.div`
  display: grid;
  grid-auto-columns: minmax(0, 1fr);
  grid-auto-flow: column;
  gap: 16px;
  flex: 1;
  min-height: 110px;
`;
interface Props {
  editor: Editor;
  /** The same a moment later, so that the weave is drawn before all the words. */
  late: Editor;
  runKey: string | null;
  onWindow: (start: number) => void;
}

/** The effect as sentences, each with its warnings, and its weave. */
function EditorPane({ editor, late, runKey, onWindow }: Props) {
  const { effect } = editor;
  const compare = useCompare(editor);
  return (
    <Pane aria-label={`Effect ${effect.name}`}>
      {runKey === null && !effect.kept && <Lights id={effect.id} />}
      <EffectTitle effect={effect} editor={editor.hands} heads={editor.heads} runKey={runKey} />
      <Sentences editor={late} />
      <Woven>
        <WeaveTools
          id={effect.id}
          attributes={(editor.weave?.attributes ?? ["look"]).join(" ")}
          held={compare.held?.id ?? null}
          onHold={compare.hold}
          onSwap={compare.swap}
        />
        <SideBySide>
          {editor.weave && (
            <Weave
              weave={editor.weave}
              runKey={runKey}
              layer={editor.weave.scopes[0]?.layer ?? 0}
              onWindow={onWindow}
              name={compare.held ? `A: ${effect.name}` : ""}
            />
          )}
          {compare.weave && (
            <Weave weave={compare.weave} runKey={null} onWindow={null} name={`B: ${compare.held!.name}`} />
          )}
        </SideBySide>
      </Woven>
    </Pane>
  );
}

/** An effect in the hands: its sentences and weave, and beside them its scope, spread, speed and base. */
export function Workbench({ id, runKey }: { id: number; runKey: string | null }) {
  const [start, setStart] = useState(0);
  const editor = useEditor(id, start);
  const late = useDeferredValue(editor);
  if (editor?.gone) return <Gone editor={editor} />;
  if (editor?.effect.broken) return <Broken effect={editor.effect} />;
  return (
    <>
      {editor ? (
        <EditorPane editor={editor} late={late ?? editor} runKey={runKey} onWindow={setStart} />
      ) : (
        <Pane />
      )}
      <SidePanel editor={late} runKey={runKey} />
    </>
  );
}
