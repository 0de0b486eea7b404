import { useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";

import type { Rig } from "../../../api/rig";
import { rigEdits } from "../../../api/rigEdits";
import { blockAt, blocksOf, inWords, placeAt, ROW_PX, strips, type Block } from "./blocks";
import { paintMap, type Carried } from "./paintMap";

const Frame = styled.div`
  overflow: auto;
  min-height: 0;
  outline-offset: -2px;
  canvas {
    display: block;
    width: 100%;
    touch-action: none;
    cursor: grab;
  }
  table {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
`;

interface Props {
  rig: Rig;
  selected: ReadonlySet<number>;
  overlapping: ReadonlySet<number>;
  onSelect: (numbers: number[]) => void;
}

/** Universes as strips, fixtures as blocks on them: drag one to another address. */
export function UniverseMap({ rig, selected, overlapping, onSelect }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [carried, setCarried] = useState<Carried | null>(null);
  const [width, setWidth] = useState(0);
  const all = useMemo(() => strips(blocksOf(rig)), [rig]);
  useEffect(() => {
    const seen = new ResizeObserver(() => setWidth(canvas.current?.clientWidth ?? 0));
    seen.observe(canvas.current!);
    return () => seen.disconnect();
  }, []);
  useEffect(() => {
    const element = canvas.current!;
    const scale = devicePixelRatio;
    element.width = Math.round(width * scale);
    element.height = Math.round(all.length * ROW_PX * scale);
    const context = element.getContext("2d")!;
    context.setTransform(scale, 0, 0, scale, 0, 0);
    paintMap(context, all, { width, selected, overlapping, carried });
  }, [all, width, selected, overlapping, carried]);

  function whole(block: Block): Block {
    const fixture = rig.fixtures.find((one) => one.number === block.number)!;
    const size = rig.modes.get(fixture.mode_id)!.footprint;
    return { ...block, universe: fixture.universe!, first: fixture.address! - 1, size };
  }
  function down(event: React.PointerEvent<HTMLCanvasElement>) {
    const { offsetX: x, offsetY: y } = event.nativeEvent;
    const block = blockAt(all, x, y, width);
    if (!block) return onSelect([]);
    event.currentTarget.setPointerCapture(event.pointerId);
    if (event.shiftKey) onSelect([...selected, block.number]);
    else if (!selected.has(block.number)) onSelect([block.number]);
    const { slot } = placeAt(x, y, width);
    setCarried({ block: whole(block), grip: slot - block.first, row: -1, first: block.first });
  }
  function move(event: React.PointerEvent) {
    if (!carried) return;
    const { row, slot } = placeAt(event.nativeEvent.offsetX, event.nativeEvent.offsetY, width);
    const last = Math.max(512 - Math.min(carried.block.size, 512), 0);
    const first = carried.block.size > 512 ? 0 : Math.min(Math.max(slot - carried.grip, 0), last);
    setCarried({ ...carried, row: Math.min(Math.max(row, 0), all.length - 1), first });
  }
  function up() {
    if (!carried) return;
    const to = all[carried.row];
    const { block, first } = carried;
    setCarried(null);
    if (!to || (to.universe === block.universe && first === block.first)) return;
    const numbers = selected.has(block.number) ? [...selected] : [block.number];
    if (numbers.length > 1)
      void rigEdits.address({ numbers, how: "in order", universe: to.universe, address: first + 1 });
    else
      void rigEdits.change(
        [{ fixture: block.number, set: { universe: to.universe, address: first + 1 } }],
        `Move ${block.number} to ${to.universe}.${first + 1}`,
      );
  }
  return (
    <Frame tabIndex={0} role="region" aria-label="Universes as strips">
      <canvas
        ref={canvas}
        style={{ height: all.length * ROW_PX }}
        role="img"
        aria-label="Universes: drag a fixture to another address. The same as a table follows."
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={() => setCarried(null)}
      />
      <table aria-label="Universes">
        <tbody>
          {all.map((strip) => (
            <tr key={strip.universe}>
              <td>{inWords(strip)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Frame>
  );
}
