import styled from "styled-components";

import type { Control } from "../../../api/pages";
import { useIsYours } from "../../../api/timelines";

const Words = styled.span`
  display: grid;
  align-content: start;
  padding: 4px 5px 0;
  line-height: 1.15;
  min-width: 0;
  overflow: hidden;
  b {
    font-size: 14px;
    font-weight: 600;
    display: -webkit-box;
    -webkit-line-clamp: 2;
    -webkit-box-orient: vertical;
    overflow: hidden;
    overflow-wrap: break-word;
    hyphens: auto;
    @media (max-width: 1320px) {
      font-size: 13px;
    }
  }
  small {
    font-size: 12px;
    opacity: 0.8;
    display: -webkit-box;
    -webkit-line-clamp: 2;
    -webkit-box-orient: vertical;
    overflow: hidden;
  }
`;

/** What a control is called, and what it does; or what is wrong with it. */
export function Label({ control }: { control: Control }) {
  const isYours = useIsYours((hand) => hand.controls?.includes(control.key) ?? false);
  const waits = control.waits ? "waits: its group is empty" : "";
  return (
    <Words title={`${control.name}: ${control.on}, ${control.does}. ${control.waits}`}>
      <b>{control.name}</b>
      <small>{isYours ? "yours: the song waits" : control.gone || waits || control.does}</small>
    </Words>
  );
}
