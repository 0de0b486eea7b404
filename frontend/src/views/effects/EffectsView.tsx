import styled from "styled-components";

import { useDesk } from "../../state";
import { Workbench } from "./editor/EditorPane";
import { Library } from "./shelf/Library";
import { SidePanel } from "./editor/SidePanel";
import { StartHere } from "./shelf/StartHere";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 248px minmax(0, 1fr) 272px;
  height: 100%;
  > * {
    min-height: 0;
    overflow: auto;
  }
  > * + * {
    border-left: 1px solid var(--line);
  }
  @media (max-width: 1180px) {
    grid-template-columns: 204px minmax(0, 1fr) 244px;
  }
`;

/** Effects: the library, the sentence with its weave, and the base that effects move. */
export function EffectsView() {
  const effect = useDesk((state) => state.effect);
  return (
    <Grid>
      <Library />
      {effect ? (
        <Workbench key={effect.id} id={effect.id} runKey={effect.key} />
      ) : (
        <>
          <StartHere />
          <SidePanel editor={null} runKey={null} />
        </>
      )}
    </Grid>
  );
}
