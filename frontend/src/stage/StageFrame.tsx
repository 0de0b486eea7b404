import styled from "styled-components";

import { STAGE } from "../theme/tokens";

/** Round the picture of the stage, as large as the view has it. */
export const Frame = styled.section`
  position: relative;
  background: ${STAGE.ground};
  border-bottom: 1px solid var(--line);
  height: clamp(150px, 40vh - 110px, 320px);
  flex: none;
  &[data-size="thin"] {
    height: 84px;
  }
  &[data-size="thin"][data-view="busk"] {
    height: 62px;
  }
  &[data-size="hidden"] {
    height: 44px;
    > canvas {
      display: none;
    }
  }
  &[data-size="tall"] {
    height: 46vh;
  }
  &[data-size="full"] {
    position: fixed;
    inset: 0;
    height: auto;
    z-index: 50;
  }
  canvas {
    width: 100%;
    height: 100%;
    display: block;
    touch-action: none;
    cursor: crosshair;
  }
  &[data-asking] canvas {
    cursor: help;
  }
`;
/** Said on the stage while the next light is asked about. */
export const Asking = styled.p`
  position: absolute;
  left: 12px;
  top: 10px;
  padding: 4px 10px;
  background: ${STAGE.bone};
  color: ${STAGE.ink};
  pointer-events: none;
`;
