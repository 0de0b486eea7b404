import { useRef } from "react";
import styled from "styled-components";

import type { Editor } from "./useEditor";

const Grip = styled.button`
  background: transparent;
  border: 0;
  border-radius: 2px;
  color: var(--quiet);
  font: 13px/32px var(--numbers);
  padding: 0;
  width: 24px;
  cursor: grab;
  touch-action: none;
  &:hover {
    background: var(--raised);
    color: var(--bone);
  }
  &[data-dragged] {
    background: var(--bone);
    color: var(--on-bone);
    cursor: grabbing;
  }
`;

/** The layer whose middle is nearest to a height on the screen. */
function nearestLayer(y: number): number {
  const rows = [...document.querySelectorAll<HTMLElement>("[data-layer-row]")];
  const away = rows.map((row) => {
    const box = row.getBoundingClientRect();
    return Math.abs(box.top + box.height / 2 - y);
  });
  return away.indexOf(Math.min(...away));
}

/** The number of a layer: drag it, or press Alt and an arrow, to change the order in which layers act. */
export function LayerHandle({ editor, number, count }: { editor: Editor; number: number; count: number }) {
  const dragged = useRef(false);
  const move = (to: number) => {
    if (to !== number && to >= 0 && to < count)
      void editor.commit({ operation: "move-layer", path: String(number), value: to });
  };
  return (
    <Grip
      type="button"
      aria-label={`Layer ${number + 1}: drag, or Alt and arrows, to move it`}
      onPointerDown={(event) => {
        dragged.current = true;
        event.currentTarget.setPointerCapture(event.pointerId);
        event.currentTarget.dataset.dragged = "";
      }}
      onPointerUp={(event) => {
        delete event.currentTarget.dataset.dragged;
        if (dragged.current) move(nearestLayer(event.clientY));
        dragged.current = false;
      }}
      onKeyDown={(event) => {
        if (!event.altKey || !event.key.startsWith("Arrow")) return;
        event.preventDefault();
        if (event.key === "ArrowUp") move(number - 1);
        if (event.key === "ArrowDown") move(number + 1);
      }}
    >
      {number + 1}
    </Grip>
  );
}
