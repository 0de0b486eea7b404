import { Button } from "react-aria-components";
import styled from "styled-components";

/** A pad of a row. What is held stands out by a frame of bone; what is covered is hatched; what waits says when it goes. */
export const PadFrame = styled(Button)`
  position: relative;
  height: 100%;
  width: var(--pad);
  min-width: 40px;
  flex: none;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 0;
  margin-left: -1px;
  background: transparent;
  color: var(--bone);
  font: inherit;
  font-size: 13px;
  line-height: 1.1;
  cursor: pointer;
  overflow: hidden;
  touch-action: none;
  user-select: none;
  &[data-hovered] {
    border-color: var(--edge);
    z-index: 1;
  }
  &[data-pressed] {
    background: var(--line);
  }
  &[data-on] {
    z-index: 2;
    outline: 3px solid var(--bone);
    outline-offset: -3px;
    font-weight: 650;
  }
  &[data-on][data-covered] {
    outline: 2px dashed var(--bone);
    outline-offset: -3px;
    font-weight: 400;
  }
  &[data-focus-visible] {
    z-index: 3;
    box-shadow: 0 0 0 2px var(--focus);
  }
  &[data-gone] {
    border-style: dashed;
    color: var(--quiet);
  }
  &[data-waiting] {
    background: var(--hatch);
  }
  &[data-clash]::after {
    content: "";
    position: absolute;
    right: 0;
    top: 0;
    border: 5px solid;
    border-color: var(--bone) var(--bone) transparent transparent;
  }
`;

/** What light a pad is: small and quiet until it is held. */
export const Swatch = styled.span`
  position: absolute;
  inset: 9px 9px;
  filter: brightness(0.62);
  [data-on] > & {
    inset: 5px;
    filter: none;
  }
  [data-on][data-covered] > & {
    inset: 7px;
    filter: brightness(0.62);
  }
`;

/** Words on a pad. */
export const PadWords = styled.span`
  position: absolute;
  inset: 2px 3px;
  display: grid;
  place-items: center;
  text-align: center;
  overflow: hidden;
  overflow-wrap: anywhere;
`;

/** Words at the foot of a pad that has a picture. */
export const PadFoot = styled.span`
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  padding: 1px 0 1px 2px;
  background: var(--ink);
  font-size: 12px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  text-align: left;
`;

/** When a pad that waits will go, over all of it. */
export const PadDue = styled.span`
  position: absolute;
  inset: auto 0 0;
  background: var(--bone);
  color: var(--on-bone);
  font: 650 12px var(--numbers);
  z-index: 1;
`;

/** That a hand has it from a song. */
export const PadYours = styled.span`
  position: absolute;
  left: 0;
  top: 0;
  padding: 0 3px;
  background: var(--ink);
  font-size: 11px;
  line-height: 13px;
  z-index: 1;
`;

/** The letter that presses a pad, while Alt is held. */
export const PadLetter = styled.kbd`
  position: absolute;
  left: 0;
  top: 0;
  padding: 0 4px;
  background: var(--bone);
  color: var(--on-bone);
  font: 650 13px var(--numbers);
  z-index: 2;
`;

/** What a pad is called, told while it is pointed at. */
export const PadTitle = styled.span`
  position: absolute;
  inset: 0;
  z-index: 4;
`;
