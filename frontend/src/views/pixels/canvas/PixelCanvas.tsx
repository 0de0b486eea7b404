import { useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";

import type { Cells, Layer, MapEdits } from "../../../api/pixels";
import { onEveryFrame, wake } from "../../../live/loop";
import { live } from "../../../live/socket";
import { useSize } from "../../../ui/useSize";
import { Beneath } from "./Beneath";
import { covered, paintCells, placed } from "./paintCells";
import { RectTool } from "./RectTool";
import type { Rect } from "./rects";

const Frame = styled.div`
  position: relative;
  flex: 1;
  min-height: 0;
  background: var(--stage-ground);
  display: grid;
  place-items: center;
  padding: 26px 20px 16px;
  border: 1px solid var(--line);
  overflow: hidden;
  touch-action: none;
`;
const Board = styled.div`
  position: relative;
  > canvas:last-of-type {
    position: relative;
    display: block;
    image-rendering: pixelated;
  }
`;
const Numbers = styled.div`
  position: absolute;
  inset: 0;
  pointer-events: none;
  span {
    position: absolute;
    transform: translate(-50%, -50%);
    font: 11px var(--numbers);
    color: var(--stage-bone);
    text-shadow:
      0 0 3px #000,
      0 0 3px #000;
  }
  &[data-below] span {
    transform: translate(-50%, 9px);
  }
`;
const PADDING = { x: 40, y: 42 };
/** Numbers of cells are written where they have so many pixels. */
const READABLE_PX = 15;
/** Where there is less room, of every so many cells. */
const EVERY = 8;

/** Where cells cover so much of the canvas, what is beneath them cannot be seen. */
const ALL = 0.98;

interface Props {
  map: number;
  cells: Cells;
  layer: Layer | undefined;
  edits: MapEdits;
  /** Whether the number of each cell is written on it. */
  numbered: boolean;
}

/** The canvas: every cell in the colour that it has on stage, and the rectangle of the chosen layer. */
export function PixelCanvas({ map, cells, layer, edits, numbered }: Props) {
  const [size, measure] = useSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  const room = { x: Math.max(size.width - PADDING.x, 40), y: Math.max(size.height - PADDING.y, 30) };
  const scale = Math.max(1, Math.min(room.x / cells.width, room.y / cells.height));
  const [width, height] = [
    Math.max(1, Math.round(cells.width * scale)),
    Math.max(1, Math.round(cells.height * scale)),
  ];
  const places = useMemo(() => placed(cells.areas, scale), [cells.areas, scale]);
  useEffect(() => {
    const context = canvas.current!.getContext("2d")!;
    const image = context.createImageData(width, height);
    const pixels = new Uint32Array(image.data.buffer);
    const off = onEveryFrame(() => {
      paintCells(pixels, width, places, cells.heads, live.heads);
      context.putImageData(image, 0, 0);
    });
    wake();
    return off;
  }, [width, height, places, cells.heads]);
  const [held, setHeld] = useState<Rect | null>(null); // what a hand has hold of
  const rect = held ?? (layer?.document.rect as Rect | undefined);
  const gappy = useMemo(() => covered(cells.areas, cells.width, cells.height) < ALL, [cells]);
  const readable = numbered && cells.heads.length < 4000;
  return (
    <Frame ref={measure} role="img" aria-label={`${cells.heads.length} cells as they are lit`}>
      <Board style={{ width, height, visibility: size.width ? undefined : "hidden" }}>
        {gappy && <Beneath map={map} />}
        <canvas ref={canvas} width={width} height={height} />
        {readable && (
          <Numbers data-below={height < READABLE_PX || undefined} aria-hidden="true">
            {cells.keys.map((key, n) => {
              const [left, top, right, bottom] = places.subarray(4 * n, 4 * n + 4) as unknown as number[];
              const roomy = right! - left! >= READABLE_PX && bottom! - top! >= READABLE_PX - 4;
              if (!roomy && n % EVERY) return null;
              return (
                <span key={key} style={{ left: (left! + right!) / 2, top: (top! + bottom!) / 2 }}>
                  {n + 1}
                </span>
              );
            })}
          </Numbers>
        )}
        {layer && rect && (
          <RectTool
            rect={rect}
            size={{ x: width, y: height }}
            name={layer.name || layer.summary}
            onPreview={(next) => {
              setHeld(next);
              edits.preview(layer.id, "rect", next);
            }}
            onCommit={(next) => {
              setHeld(next);
              void edits.set(layer.id, "rect", next).finally(() => setHeld(null));
            }}
          />
        )}
      </Board>
    </Frame>
  );
}
