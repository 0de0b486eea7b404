import { useEffect, useRef } from "react";
import styled from "styled-components";

import type { Rig } from "../../../api/rig";
import { onEveryFrame } from "../../../live/loop";
import { live } from "../../../live/socket";
import { drivesOf } from "../../../stage/paint";
import { STAGE } from "../../../theme/tokens";
import { gathered, hueOf, pickedAt, placeOf } from "./disc";

const SIZE_PX = 132;
const RADIUS_PX = 60;
const NEAR_PX = 9;
const STEP = { hue: 1, saturation: 1 };

const Disc = styled.div`
  position: relative;
  width: ${SIZE_PX}px;
  height: ${SIZE_PX}px;
  flex: none;
  &::before {
    content: "";
    position: absolute;
    inset: ${SIZE_PX / 2 - RADIUS_PX}px;
    border-radius: 50%;
    background:
      radial-gradient(closest-side, #fff, transparent),
      conic-gradient(from 90deg, #f00, #f0f, #00f, #0ff, #0f0, #ff0, #f00);
  }
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    cursor: crosshair;
    touch-action: none;
    border-radius: 50%;
  }
`;

interface Props {
  rig: Rig;
  heads: string[];
  hue: number;
  saturation: number;
  onPick: (hue: number, saturation: number, kept: boolean) => void;
}

/** Hue and saturation as a disc: the mark is what is set, dots are where the selected lights are now. */
export function ColourDisc({ rig, heads, hue, saturation, onPick }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const dragged = useRef(false);
  useEffect(() => {
    const element = canvas.current!;
    const context = element.getContext("2d")!;
    const chosen = new Set(heads);
    const numbers = rig.heads.flatMap((head, number) => (chosen.has(head.key) ? [number] : []));
    const ring = (x: number, y: number, radius: number, colour: string, width: number) => {
      context.strokeStyle = colour;
      context.lineWidth = width;
      context.beginPath();
      context.arc(x, y, radius, 0, 2 * Math.PI);
      context.stroke();
    };
    return onEveryFrame(() => {
      const scale = devicePixelRatio;
      element.width = element.height = Math.round(SIZE_PX * scale);
      context.setTransform(scale, 0, 0, scale, (SIZE_PX / 2) * scale, (SIZE_PX / 2) * scale);
      const frame = live.heads?.rig === rig.number ? live.heads : null;
      const seen = frame ? numbers.map((number) => hueOf(...drivesOf(frame, number))) : [];
      const places = seen.flatMap((one) => (one ? [placeOf(one.hue, one.saturation, RADIUS_PX)] : []));
      context.font = '11px "Atkinson Hyperlegible Mono Variable", monospace';
      context.textAlign = "center";
      context.textBaseline = "middle";
      for (const { place, count } of gathered(places, NEAR_PX)) {
        const radius = count > 1 ? 8 : 4;
        context.fillStyle = STAGE.ground;
        context.beginPath();
        context.arc(place.x, place.y, radius, 0, 2 * Math.PI);
        context.fill();
        ring(place.x, place.y, radius, STAGE.bone, 1);
        context.fillStyle = STAGE.bone;
        if (count > 1) context.fillText(String(count), place.x, place.y + 0.5);
      }
      const mark = placeOf(hue, saturation, RADIUS_PX);
      ring(mark.x, mark.y, 10, STAGE.ground, 5);
      ring(mark.x, mark.y, 10, STAGE.bone, 2);
    });
  }, [rig, heads, hue, saturation]);
  const pick = (event: React.PointerEvent, kept: boolean) => {
    const box = event.currentTarget.getBoundingClientRect();
    const place = { x: event.clientX - box.left - SIZE_PX / 2, y: event.clientY - box.top - SIZE_PX / 2 };
    const to = pickedAt(place, RADIUS_PX);
    onPick(to.hue, to.saturation, kept);
  };
  return (
    <Disc>
      <canvas
        ref={canvas}
        role="application"
        tabIndex={0}
        aria-label={`Disc of hue and saturation: ${Math.round(hue)}°, ${Math.round(saturation)} %. Arrows left and right turn the hue, up and down change the saturation`}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          dragged.current = true;
          pick(event, false);
        }}
        onPointerMove={(event) => dragged.current && pick(event, false)}
        onPointerUp={(event) => {
          if (dragged.current) pick(event, true);
          dragged.current = false;
        }}
        onKeyDown={(event) => {
          const far = event.shiftKey ? 10 : 1;
          const by = { ArrowLeft: [far, 0], ArrowRight: [-far, 0], ArrowUp: [0, far], ArrowDown: [0, -far] }[
            event.key
          ];
          if (!by) return;
          event.preventDefault();
          const turned = (hue + by[0]! * STEP.hue + 360) % 360;
          onPick(turned, Math.min(Math.max(saturation + by[1]! * STEP.saturation, 0), 100), true);
        }}
      />
    </Disc>
  );
}
