import { useMemo } from "react";
import styled from "styled-components";

import type { Layer, MapEdits } from "../../../api/pixels";
import { Slot } from "../../effects/editor/slots/Slot";
import { handsOf } from "../hands";
import { PartChooser } from "./PartChooser";

const More = styled.dl`
  margin: 8px 0 0;
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

/** What a layer is put together from, and what its sentence does not say. */
export function LayerParts({ layer, edits }: { layer: Layer; edits: MapEdits }) {
  const hands = useMemo(() => handsOf(layer, edits), [layer, edits]);
  return (
    <>
      <PartChooser layer={layer} edits={edits} />
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
    </>
  );
}
