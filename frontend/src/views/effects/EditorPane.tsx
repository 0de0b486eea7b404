import { useState } from "react";
import styled from "styled-components";

import { useCompare } from "./compare";
import { EffectTitle } from "./EffectTitle";
import { Gone } from "./Gone";
import { LayerHandle } from "./LayerHandle";
import { LayerTools } from "./LayerTools";
import { Notices } from "./Notices";
import { SentenceLine } from "./SentenceLine";
import { SidePanel } from "./SidePanel";
import { useEditor, type Editor } from "./useEditor";
import { Weave } from "./Weave";
import { WeaveTools } from "./WeaveTools";

const Pane = styled.section`
  padding: 4px 20px 8px 16px;
  display: flex;
  flex-direction: column;
  gap: 2px;
`;
/** The words scroll where they are too many; the weave below them is always there. */
const Words = styled.div`
  flex: 0 1 auto;
  min-height: 72px;
  overflow: auto;
`;
const Woven = styled.div`
  flex: 1 0 180px;
  min-height: 180px;
  display: flex;
  flex-direction: column;
  border-top: 1px solid var(--line);
  padding-top: 4px;
`;
const Layer = styled.div`
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr) auto;
  align-items: start;
  &[data-muted] p {
    opacity: 0.55;
    text-decoration: line-through;
  }
  > button[aria-label$="more"] {
    min-height: 32px;
  }
`;
const SideBySide = styled.div`
  display: grid;
  grid-auto-columns: minmax(0, 1fr);
  grid-auto-flow: column;
  gap: 16px;
  flex: 1;
  min-height: 110px;
`;
const noticesAt = (editor: Editor, layer: number | null) =>
  (editor.weave?.notices ?? []).filter((notice) =>
    layer === null ? !/^layers\.\d/.test(notice.path) : `${notice.path}.`.startsWith(`layers.${layer}.`),
  );

/** The effect as sentences, each with its warnings, and its weave. */
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
  const compare = useCompare(editor);
  const layers = effect.document.layers as { muted?: boolean }[];
  return (
    <Pane aria-label={`Effect ${effect.name}`}>
      <EffectTitle editor={editor} runKey={runKey} />
      <Words>
        {effect.sentence.layers.map((parts, n) => (
          <div key={n} data-layer-row>
            <Layer data-muted={layers[n]?.muted || undefined}>
              <LayerHandle editor={editor} number={n} count={layers.length} />
              <SentenceLine parts={parts} editor={editor} label={`Layer ${n + 1}`} />
              <LayerTools editor={editor} number={n} layers={layers} />
            </Layer>
            <Notices editor={editor} notices={noticesAt(editor, n)} />
          </div>
        ))}
        <Layer>
          <span />
          <SentenceLine parts={effect.sentence.shared} editor={editor} label="Spread and speed" />
        </Layer>
        <Notices editor={editor} notices={noticesAt(editor, null)} />
      </Words>
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
  if (editor?.gone) return <Gone editor={editor} />;
  return (
    <>
      {editor ? <EditorPane editor={editor} runKey={runKey} onWindow={setStart} /> : <Pane />}
      <SidePanel editor={editor} runKey={runKey} />
    </>
  );
}
