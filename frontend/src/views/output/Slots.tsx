import { useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";

import { useUniverses } from "../../api/queries";
import { live, watch } from "../../live/socket";
import { onEveryFrame } from "../../live/loop";
import { Choice } from "../../ui/Choice";
import { NumberField } from "../../ui/NumberField";
import { cellAt, layout, ownerOf } from "./slots";

const Tools = styled.div`
  display: flex;
  gap: 20px;
  align-items: center;
  padding: 8px 0;
  flex-wrap: wrap;
  position: sticky;
  top: 0;
  background: var(--ink);
  z-index: 1;
`;
const Told = styled.span`
  color: var(--quiet);
  flex: 1;
`;
const Canvas = styled.canvas`
  width: 100%;
  display: block;
`;
const ROW_PX = 34;

/** The 512 slots of a universe, live, with a free number of them in a row. */
export function Slots() {
  const { data } = useUniverses();
  const [chosen, setChosen] = useState<number | null>(null);
  const [perRow, setPerRow] = useState(24);
  const [told, setTold] = useState("");
  const canvas = useRef<HTMLCanvasElement>(null);
  const universe = data?.universes.find((one) => one.universe === chosen) ?? data?.universes[0];
  const number = universe?.universe ?? 1;
  const used = useMemo(() => {
    const owners = new Array<boolean>(512).fill(false);
    universe?.fixtures.forEach((fixture) => {
      const channels = fixture.channels as string[];
      channels.forEach((_, n) => (owners[Number(fixture.address) - 1 + n] = true));
    });
    return owners;
  }, [universe]);

  useEffect(() => {
    watch([number]);
    return () => watch([]);
  }, [number]);

  useEffect(() => {
    const element = canvas.current!;
    const context = element.getContext("2d")!;
    const style = getComputedStyle(element);
    const [bone, quiet, line] = ["--bone", "--quiet", "--line"].map((name) => style.getPropertyValue(name));
    return onEveryFrame(() => {
      const scale = devicePixelRatio;
      const width = element.clientWidth;
      const { rows, cell } = layout(width, perRow);
      const height = rows * ROW_PX;
      if (element.width !== Math.round(width * scale) || element.height !== Math.round(height * scale)) {
        element.width = Math.round(width * scale);
        element.height = Math.round(height * scale);
        element.style.height = `${height}px`;
      }
      const slots = live.universes.get(number);
      context.setTransform(scale, 0, 0, scale, 0, 0);
      context.clearRect(0, 0, width, height);
      context.textAlign = "right";
      for (let slot = 0; slot < 512; slot++) {
        const x = (slot % perRow) * cell;
        const y = Math.floor(slot / perRow) * ROW_PX;
        const value = slots?.[slot] ?? 0;
        context.fillStyle = bone!;
        context.globalAlpha = used[slot] ? 0.32 : 0.1;
        context.fillRect(x, y + ROW_PX - 4, (cell - 3) * (value / 255), 3);
        context.globalAlpha = 1;
        context.fillStyle = line!;
        context.fillRect(x, y + ROW_PX - 1, cell - 3, 1);
        if (cell < 20) continue;
        context.fillStyle = quiet!;
        context.font = '12px "Atkinson Hyperlegible Mono Variable", monospace';
        if (cell >= 34) {
          context.textAlign = "left";
          context.fillText(String(slot + 1), x + 1, y + 13);
          context.textAlign = "right";
        }
        context.fillStyle = used[slot] ? bone! : quiet!;
        context.font = '14px "Atkinson Hyperlegible Mono Variable", monospace';
        context.fillText(String(value), x + cell - 5, y + 27);
      }
    });
  }, [number, perRow, used]);

  function tell(event: React.PointerEvent<HTMLCanvasElement>) {
    const box = event.currentTarget.getBoundingClientRect();
    const slot = cellAt(event.clientX - box.left, event.clientY - box.top, box.width, perRow, ROW_PX);
    const owner = slot === null ? null : ownerOf(universe?.fixtures ?? [], slot);
    setTold(slot === null ? "" : `Slot ${slot}: ${owner ?? "free"}`);
  }
  return (
    <>
      <Tools>
        <Choice
          label="Universe"
          row
          options={(data?.universes ?? []).map((one) => ({
            id: one.universe,
            text: `${one.universe}, ${one.used} slots used`,
          }))}
          value={number}
          onChange={(key) => setChosen(Number(key))}
        />
        <NumberField
          label="Slots in a row"
          row
          minValue={1}
          maxValue={128}
          value={perRow}
          onChange={(value) => value > 0 && setPerRow(value)}
        />
        <Told aria-live="polite">{told || "Point at a slot to see what it does."}</Told>
      </Tools>
      <Canvas
        ref={canvas}
        role="img"
        aria-label={`Slots of universe ${number}, live`}
        onPointerMove={tell}
        onPointerLeave={() => setTold("")}
      />
    </>
  );
}
