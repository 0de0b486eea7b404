import { useRef, type PointerEvent } from "react";

import { useTimelineEdits, type Timeline } from "../../../api/timelines";
import { wake } from "../../../live/loop";
import { act } from "../../../live/socket";
import { frameS } from "../../../live/timecode";
import { seen, useLine } from "../line";
import { positionAt, snapped } from "../scale";
import { gripAt, type Grip } from "./paintTop";
import type { Picture, Shaped } from "./picture";

/** What a pointer does over parts and sound: it drags the playhead, or, where that was chosen, parts and bar lines. */
export function useTopPointer(
  song: Timeline,
  picture: () => Picture | null,
  drawn: (now: Partial<Picture>) => void,
) {
  const edits = useTimelineEdits(song.id);
  const grip = useRef<{ of: Grip; x: number; shaped: Shaped | null } | null>(null);
  const length = song.document.length_s ?? 0;

  function show(shaped: Shaped | null) {
    drawn({ shaped });
    wake();
  }

  /** The playhead: seen on screens, and sent where that was chosen. */
  function scrub(x: number, free: boolean) {
    const { snap, scrubsOnStage } = useLine.getState();
    const at = positionAt(x, seen.span, picture()?.width ?? 1);
    const position = Math.min(Math.max(snapped(at, free ? "off" : snap, song), 0), length);
    if (position === seen.dragged) return;
    seen.dragged = position;
    act({ do: scrubsOnStage ? "locate" : "scrub", timeline: song.id, position });
    wake();
  }

  function down(event: PointerEvent<HTMLCanvasElement>) {
    const shown = picture();
    if (event.button || !shown) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const { offsetX: x, offsetY: y } = event.nativeEvent;
    const found = shown.shapes ? gripAt(shown, x, y) : null;
    if (found) grip.current = { of: found, x, shaped: null };
    else scrub(x, event.altKey);
  }

  function move(event: PointerEvent<HTMLCanvasElement>) {
    const shown = picture();
    if (!shown) return;
    const { offsetX: x, offsetY: y } = event.nativeEvent;
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) {
      const under = shown.shapes ? gripAt(shown, x, y) : null;
      event.currentTarget.style.cursor = !under ? "default" : under.kind === "part" ? "grab" : "ew-resize";
      return;
    }
    const at = grip.current;
    if (!at) return scrub(x, event.altKey);
    const by = ((x - at.x) / shown.width) * (shown.span.to - shown.span.from);
    at.shaped = shapedBy(at.of, by, event.altKey);
    show(at.shaped);
  }

  function shapedBy(of: Grip, by: number, free: boolean): Shaped {
    const to = (p: number) => snapped(p, free ? "off" : useLine.getState().snap, song);
    if (of.kind === "bar") return { kind: "bar", bar: of.bar, at: Math.max(song.bars[of.bar]! + by, 0) };
    const { id, at, length: long = 0 } = of.marker;
    if (of.kind === "part")
      return { kind: "part", id, at: Math.min(Math.max(to(at + by), 0), length), length: long };
    const shortest = frameS(song.document.rate ?? "25");
    return { kind: "part", id, at, length: Math.max(Math.min(to(at + long + by), length) - at, shortest) };
  }

  async function up() {
    const at = grip.current;
    grip.current = null;
    if (!at) return letGo();
    const { of, shaped } = at;
    if (!shaped) return;
    let done: unknown = null;
    if (shaped.kind === "bar") {
      const beat = (song.first_bar - 1 + shaped.bar) * (song.document.grid?.in_bar ?? 4);
      done = await edits.grid({ do: "drag", beat, at: shaped.at });
    } else if (of.kind !== "bar") {
      const { at: begins, length: long } = shaped;
      const { name, colour } = of.marker;
      done = await edits.changeMarker(shaped.id, { name, colour, at: begins, length: long });
    }
    if (done === null) show(null); // refused; what was taken is shown by the song that comes next
  }

  function letGo() {
    if (seen.dragged === null) return;
    act({ do: "scrub", timeline: song.id, position: null });
    act({ do: "locate", timeline: song.id, position: seen.dragged });
    window.setTimeout(() => {
      seen.dragged = null;
      wake();
    }, 120); // until the engine has told where it is
  }
  return { down, move, up: () => void up() };
}
