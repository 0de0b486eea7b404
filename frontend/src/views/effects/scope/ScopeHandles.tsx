import { useRef, useState } from "react";
import styled from "styled-components";

import type { Handle } from "./handles";
import type { Editor } from "../editor/useEditor";

const Grip = styled.div`
  position: absolute;
  width: 28px;
  height: 28px;
  margin: -14px 0 0 -14px;
  display: grid;
  place-items: center;
  touch-action: none;
  cursor: ew-resize;
  &[aria-orientation="vertical"] {
    cursor: ns-resize;
  }
  &::after {
    content: "";
    width: 9px;
    height: 9px;
    transform: rotate(45deg);
    background: var(--ink);
    border: 2px solid var(--stage-bone);
  }
  &[data-held]::after,
  &:hover::after {
    background: var(--stage-bone);
  }
`;
const Told = styled.span`
  position: absolute;
  left: 6px;
  bottom: 4px;
  font-size: 13px;
  background: var(--stage-ground);
  color: var(--stage-bone);
  padding: 0 4px;
  pointer-events: none;
`;

/** What can be dragged in the scope, each a slider for the keyboard too. It previews while it moves. */
export function ScopeHandles({ handles, editor }: { handles: Handle[]; editor: Editor }) {
  const held = useRef<{ id: string; value: number } | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const shown = handles.find((one) => one.id === told);

  function share(event: React.PointerEvent, handle: Handle): number {
    const box = event.currentTarget.parentElement!.getBoundingClientRect();
    const at =
      handle.axis === "x" ? (event.clientX - box.left) / box.width : (event.clientY - box.top) / box.height;
    return Math.min(Math.max(at, 0), 1);
  }
  function key(event: React.KeyboardEvent, handle: Handle) {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    const by = way * handle.step * (event.shiftKey ? 10 : 1);
    const value = Math.min(Math.max(Number((handle.value + by).toFixed(4)), handle.low), handle.high);
    if (value !== handle.value) void editor.commit(handle.change(value));
  }
  return (
    <>
      {handles.map((handle) => (
        <Grip
          key={handle.id}
          role="slider"
          tabIndex={0}
          aria-label={handle.label}
          aria-orientation={handle.axis === "x" ? "horizontal" : "vertical"}
          aria-valuemin={handle.low}
          aria-valuemax={handle.high}
          aria-valuenow={handle.value}
          aria-valuetext={handle.text}
          title={handle.label}
          style={{ left: `${handle.x * 100}%`, top: `${handle.y * 100}%` }}
          onKeyDown={(event) => key(event, handle)}
          onFocus={() => setTold(handle.id)}
          onBlur={() => setTold(null)}
          onPointerEnter={() => setTold(handle.id)}
          onPointerLeave={() => held.current === null && setTold(null)}
          onPointerDown={(event) => {
            event.stopPropagation();
            event.currentTarget.setPointerCapture(event.pointerId);
            event.currentTarget.dataset.held = "";
            held.current = { id: handle.id, value: handle.value };
          }}
          onPointerMove={(event) => {
            if (held.current?.id !== handle.id) return;
            const value = handle.at(share(event, handle));
            if (value === held.current.value) return;
            held.current.value = value;
            editor.preview(handle.change(value));
          }}
          onPointerUp={(event) => {
            delete event.currentTarget.dataset.held;
            const now = held.current;
            held.current = null;
            const value = handle.at(share(event, handle));
            if (now) void editor.commit(handle.change(value));
          }}
        />
      ))}
      {shown && <Told aria-hidden="true">{shown.text}</Told>}
    </>
  );
}
