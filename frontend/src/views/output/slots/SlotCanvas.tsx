import { useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";

import { onEveryFrame } from "../../../live/loop";
import { live } from "../../../live/socket";
import { paintSlots, type Look, type SlotsShown } from "./paintSlots";
import { cellAt, fixtureLayout, freeLayout, type SlotFixture } from "./places";

const Canvas = styled.canvas`
  width: 100%;
  display: block;
  cursor: pointer;
`;
/** So many frames of a universe are kept to compare with: it comes 20 times a second, a node is asked once. */
const KEPT_FRAMES = 60;

interface Props extends Omit<SlotsShown, "layout" | "sent"> {
  universe: number;
  fixtures: SlotFixture[];
  /** Slots in a row; 0: rows by fixture. */
  perRow: number;
  onPoint: (slot: number | null) => void;
  onChoose: (slot: number) => void;
}

/** The slots of one universe, live. */
export function SlotCanvas(props: Props) {
  const { universe, fixtures, perRow, onPoint, onChoose } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const [width, setWidth] = useState(0);
  const sent = useRef<Uint8Array[]>([]);
  const now = useRef(props);
  useEffect(() => {
    now.current = props;
  });
  const layout = useMemo(
    () => (perRow ? freeLayout(fixtures, perRow, width) : fixtureLayout(fixtures, width)),
    [fixtures, perRow, width],
  );
  useEffect(() => {
    const element = canvas.current!;
    const seen = new ResizeObserver(() => setWidth(element.clientWidth));
    seen.observe(element);
    return () => seen.disconnect();
  }, []);
  useEffect(() => {
    sent.current = [];
  }, [universe]);
  useEffect(() => {
    const element = canvas.current!;
    const context = element.getContext("2d")!;
    const style = getComputedStyle(element);
    const read = (name: string) => style.getPropertyValue(name);
    let painted: unknown[] = [];
    return onEveryFrame(() => {
      const scale = devicePixelRatio;
      const look: Look = { bone: read("--bone"), quiet: read("--quiet"), line: read("--line") };
      const newest = live.universes.get(universe);
      const seen = [scale, look.bone, newest, now.current];
      if (seen.every((one, n) => one === painted[n])) return;
      painted = seen;
      const pixels = [Math.round(width * scale), Math.round(layout.height * scale)] as const;
      if (element.width !== pixels[0] || element.height !== pixels[1]) {
        [element.width, element.height] = pixels;
        element.style.height = `${layout.height}px`;
      }
      if (newest && newest !== sent.current.at(-1))
        sent.current = [...sent.current, newest].slice(-KEPT_FRAMES);
      context.setTransform(scale, 0, 0, scale, 0, 0);
      paintSlots(context, look, { ...now.current, layout, sent: sent.current }, width);
    });
  }, [universe, layout, width]);
  const slotAt = (event: React.PointerEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return cellAt(layout, event.clientX - box.left, event.clientY - box.top)?.slot ?? null;
  };
  return (
    <Canvas
      ref={canvas}
      role="img"
      aria-label={`Slots of universe ${universe}, live`}
      onPointerMove={(event) => onPoint(slotAt(event))}
      onPointerLeave={() => onPoint(null)}
      onPointerDown={(event) => {
        const slot = slotAt(event);
        if (slot !== null) onChoose(slot);
      }}
    />
  );
}
