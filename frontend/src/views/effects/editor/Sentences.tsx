import { memo } from "react";
import styled from "styled-components";

import { Scroller } from "../../../ui/Scroller";
import { LayerHandle } from "./LayerHandle";
import { LayerTools } from "./LayerTools";
import { Notices } from "./Notices";
import { SentenceLine } from "./SentenceLine";
import type { Editor } from "./useEditor";

/** The words scroll where they are too many, and say so; the weave below them is always there. */
const Words = styled(Scroller)`
  flex: 0 1 auto;
  min-height: 132px;
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
const noticesAt = (editor: Editor, layer: number | null) =>
  (editor.weave?.notices ?? []).filter((notice) =>
    layer === null ? !/^layers\.\d/.test(notice.path) : `${notice.path}.`.startsWith(`layers.${layer}.`),
  );

/** A sentence for each layer and one for what they share, each with its warnings. */
export const Sentences = memo(function Sentences({ editor }: { editor: Editor }) {
  const { effect } = editor;
  const layers = effect.document.layers as { muted?: boolean }[];
  return (
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
  );
});
