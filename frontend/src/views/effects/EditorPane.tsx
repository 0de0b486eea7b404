import { useState } from "react";
import styled from "styled-components";

import { useEditor, type Editor } from "./useEditor";
import { SidePanel } from "./SidePanel";
import { EffectTitle } from "./EffectTitle";
import { LayerTools } from "./LayerTools";
import { Notices } from "./Notices";
import { MoveMenu } from "./NewEffect";
import { SentenceLine } from "./SentenceLine";
import { Weave } from "./Weave";

const Pane = styled.section`
  padding: 8px 20px 10px;
  display: flex;
  flex-direction: column;
  gap: 2px;
  > * {
    flex-shrink: 0;
  }
`;
const Layer = styled.div`
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr) auto;
  align-items: start;
  > span {
    color: var(--quiet);
    font: 13px/34px var(--numbers);
  }
  &[data-muted] p {
    opacity: 0.55;
    text-decoration: line-through;
  }
  > button[aria-label$="more"] {
    min-height: 34px;
  }
`;
const Rule = styled.hr`
  border: 0;
  border-top: 1px solid var(--line);
  margin: 2px 0;
  width: 100%;
`;

/** The effect as sentences, and its weave. */
function EditorPane({
  editor,
  runKey,
  onWindow,
}: {
  editor: Editor;
  runKey: string | null;
  onWindow: (start: number) => void;
}) {
  const { effect } = editor;
  const layers = effect.document.layers as { muted?: boolean }[];
  return (
    <Pane aria-label={`Effect ${effect.name}`}>
      <EffectTitle editor={editor} runKey={runKey} />
      {effect.sentence.layers.map((parts, n) => (
        <Layer key={n} data-muted={layers[n]?.muted || undefined}>
          <span aria-hidden="true">{n + 1}</span>
          <SentenceLine parts={parts} editor={editor} label={`Layer ${n + 1}`} />
          <LayerTools editor={editor} number={n} count={layers.length} muted={!!layers[n]?.muted} />
        </Layer>
      ))}
      <Layer>
        <span />
        <SentenceLine parts={effect.sentence.shared} editor={editor} label="Spread and speed" />
        <MoveMenu
          plain
          label="Add a layer"
          onChoose={(value) => void editor.commit({ operation: "add-layer", path: "", value })}
        />
      </Layer>
      <Notices editor={editor} />
      <Rule />
      {editor.weave && <Weave weave={editor.weave} runKey={runKey} onWindow={onWindow} />}
    </Pane>
  );
}

/** An effect in the hands: its sentences and weave, and beside them its scope and the base. */
export function Workbench({ id, runKey }: { id: number; runKey: string | null }) {
  const [start, setStart] = useState(0);
  const editor = useEditor(id, start);
  return (
    <>
      {editor ? <EditorPane editor={editor} runKey={runKey} onWindow={setStart} /> : <Pane />}
      <SidePanel editor={editor} runKey={runKey} />
    </>
  );
}
