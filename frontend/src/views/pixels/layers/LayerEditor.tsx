import { useMemo, useState } from "react";
import styled from "styled-components";

import type { Layer, MapEdits } from "../../../api/pixels";
import { Toggle } from "../../../ui/Button";
import { Slot } from "../../effects/editor/slots/Slot";
import { PartChooser } from "./PartChooser";

const Frame = styled.section`
  padding: 8px 16px 12px;
  display: grid;
  gap: 8px;
`;
const Line = styled.p`
  font-size: 17px;
  line-height: 30px;
`;
const More = styled.dl`
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 2px 16px;
  > div {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    border-bottom: 1px solid var(--line);
  }
  dt {
    color: var(--quiet);
    font-size: 14px;
  }
  dd {
    margin: 0;
  }
`;
const SIGNS = /^[,.):]/;

/** A layer as a sentence whose values are its controls, the four parts it is put together from, and what else it has. */
export function LayerEditor({ layer, edits }: { layer: Layer; edits: MapEdits }) {
  const [more, setMore] = useState(false);
  const hands = useMemo(
    () => ({
      preview: ({ path, value }: { path?: string | null; value?: unknown }) =>
        edits.preview(layer.id, path!, value),
      commit: async ({ path, value }: { path?: string | null; value?: unknown }) => {
        await edits.set(layer.id, path!, value);
      },
    }),
    [edits, layer.id],
  );
  return (
    <Frame aria-label={`Layer ${layer.name || layer.summary}`}>
      <Line role="group" aria-label="The layer as a sentence">
        {layer.sentence.map((part, n) => (
          <span key={part.slot ?? n}>
            {n > 0 && !SIGNS.test(part.text) && " "}
            {part.slot ? <Slot part={part} editor={hands} warned={false} /> : part.text}
          </span>
        ))}
      </Line>
      <PartChooser layer={layer} edits={edits} />
      <div>
        <Toggle data-variant="small" isSelected={more} onChange={setMore}>
          {more ? "Fewer settings" : "More settings and finishes"}
        </Toggle>
      </div>
      {more && (
        <More>
          {layer.settings.map((part) => (
            <div key={part.slot}>
              <dt>{part.label}</dt>
              <dd>
                <Slot part={part} editor={hands} warned={false} />
              </dd>
            </div>
          ))}
        </More>
      )}
    </Frame>
  );
}
