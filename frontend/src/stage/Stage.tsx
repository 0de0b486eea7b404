import { useEffect, useMemo, useRef } from "react";
import { useRig } from "../api/queries";
import { fixturesOf, takenAs } from "../api/rig";
import type { HeadsFrame } from "../live/frame";
import { live } from "../live/socket";
import { onEveryFrame, wake } from "../live/loop";
import { desk, useDesk, useStageSize } from "../state";
import { STAGE } from "../theme/tokens";
import { fit, inBox, project, type Point, type View } from "./geometry";
import { groundOf, paintHeads, paintLight, paintWires, placeOf, type Head, type Painting } from "./paint";
import { carry, carryText, isCarried } from "./moving";
import { moveFixtures } from "./moveFixtures";
import { BlindMark } from "./BlindMark";
import { CueMark } from "./CueMark";
import { PixelsMark } from "./PixelsMark";
import { ScrubMark } from "./ScrubMark";
import { Asking, Frame } from "./StageFrame";
import { StageTools } from "./StageTools";
import { pointedAt, StandingIn } from "./StandingIn";

const NEAR_PX = 18;

/** So much of each frame of the screen it takes at the most: a large rig is painted in several, and hands have the rest. */
const TURN_MS = 5;

function nearest(heads: Head[], view: View, at: Point): Head | null {
  let best: Head | null = null;
  let distance = NEAR_PX;
  for (const head of heads) {
    if (head.leads) continue;
    const point = project(view, placeOf(head));
    const away = Math.hypot(point.x - at.x, point.y - at.y);
    if (away < distance) [best, distance] = [head, away];
  }
  return best;
}

/** Add to a selection (Shift), take out of it (Ctrl), or begin a new one. */
function chosen(before: string[], keys: string[], event: PointerEvent): string[] {
  if (event.ctrlKey || event.metaKey) return before.filter((key) => !keys.includes(key));
  if (event.shiftKey) return [...before, ...keys.filter((key) => !before.includes(key))];
  return keys;
}

interface Shown {
  frame: HeadsFrame | null;
  selection: string[] | null;
  unreached: string[] | null;
  drag: Drag | null;
}
interface Drag {
  from: Point;
  to: Point;
  /** Numbers of the fixtures that are carried along; none: a box is drawn. */
  carried: number[];
}

/** The rig, live. Click a head, drag a box; Shift adds, Ctrl takes away. */
export function Stage() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drag = useRef<Drag | null>(null);
  const { data: rig } = useRig();
  const size = useStageSize();
  const shownIn = useDesk((state) => state.view);
  const asking = useDesk((state) => state.asking);
  const standing = useDesk((state) => state.standing !== null);
  const heads = useMemo(() => rig?.heads ?? [], [rig]);

  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext("2d", { alpha: false });
    if (!element || !context) return;
    if (!heads.length) {
      context.fillStyle = STAGE.ground;
      context.fillRect(0, 0, element.width, element.height);
      return;
    }
    const places = heads.map(placeOf);
    let view = fit(places, 100, 100, "front");
    let ground = groundOf(view, heads, { width: 1, height: 1 }, 1);
    let known = "";
    let shown: Shown = { frame: null, selection: null, unreached: null, drag: null };
    // what stands still is drawn once, and copied over the light
    const still = document.createElement("canvas");
    const carryOf = (shownView: View, { from, to, carried }: Drag) => {
      const own = new Set(carried);
      const stands = heads.filter((head) => !own.has(head.fixture) && !head.cell);
      return carry(
        shownView,
        from,
        to,
        carried.map((number) => rig!.of.get(number)![0]!),
        stands,
      );
    };
    const paintCarried = (on: CanvasRenderingContext2D, shownView: View, now: Drag) => {
      const way = carryOf(shownView, now);
      on.strokeStyle = on.fillStyle = STAGE.bone;
      for (const number of now.carried) {
        const { x, y, z } = placeOf(rig!.of.get(number)![0]!);
        const at = project(shownView, { x: x + way.x, y: y + way.y, z: z + way.z });
        on.strokeRect(at.x - 6.5, at.y - 6.5, 13, 13);
      }
      on.textAlign = "left";
      on.fillText(carryText(way, shownView.elevation), now.to.x + 14, now.to.y - 10);
    };
    let painting: Painting | null = null;
    let drawn: Pick<Shown, "selection" | "unreached"> = { selection: null, unreached: null };
    const paint = () => {
      const scale = devicePixelRatio;
      const { clientWidth: width, clientHeight: height } = element;
      if (!width || !height) return;
      const [wide, high] = [Math.round(width * scale), Math.round(height * scale)];
      if (element.width !== wide || element.height !== high) {
        element.width = wide;
        element.height = high;
      }
      const { elevation, selection, unreached } = useDesk.getState();
      const form = `${width} ${height} ${scale} ${elevation}`;
      const isNew = form !== known;
      if (
        !isNew &&
        !painting &&
        shown.frame === live.heads &&
        shown.selection === selection &&
        shown.unreached === unreached &&
        shown.drag === drag.current
      )
        return;
      const begun = performance.now();
      if (isNew) {
        known = form;
        painting = null;
        view = fit(places, width, height, elevation);
        ground = groundOf(view, heads, element, scale);
      }
      if (isNew || drawn.selection !== selection || drawn.unreached !== unreached) {
        drawn = { selection, unreached };
        still.width = element.width;
        still.height = element.height;
        const quiet = still.getContext("2d")!;
        quiet.setTransform(scale, 0, 0, scale, 0, 0);
        paintWires(quiet, view, heads, width);
        paintHeads(quiet, view, heads, new Map(selection.map((key, rank) => [key, rank])), unreached);
      }
      const frame = live.heads?.rig === rig!.number ? live.heads : null;
      painting = frame && (painting ?? { frame, next: 0 });
      const hasTime = () => isNew || performance.now() - begun < TURN_MS; // a new size is never seen empty
      if (painting && !paintLight(ground, view, painting, hasTime)) return wake();
      shown = { frame: painting?.frame ?? live.heads, selection, unreached, drag: drag.current };
      if (shown.frame !== live.heads) wake();
      context.setTransform(scale, 0, 0, scale, 0, 0);
      if (painting) context.putImageData(ground.image, 0, 0);
      else {
        context.fillStyle = STAGE.ground;
        context.fillRect(0, 0, width, height);
      }
      context.drawImage(still, 0, 0, width, height);
      if (drag.current?.carried.length) paintCarried(context, view, drag.current);
      else if (drag.current) {
        const { from, to } = drag.current;
        context.strokeStyle = STAGE.bone;
        context.setLineDash([4, 3]);
        context.strokeRect(from.x + 0.5, from.y + 0.5, to.x - from.x, to.y - from.y);
        context.setLineDash([]);
      }
      painting = null;
    };
    /** What is chosen with these heads: they, where cells are taken apart, else all of their fixtures. */
    const taken = (those: Head[]) => {
      if (useDesk.getState().cells) return those.map((head) => head.key);
      return takenAs(rig!, new Set(those.map((head) => head.fixture)), false);
    };
    const down = (event: PointerEvent) => {
      element.setPointerCapture(event.pointerId);
      const point = { x: event.offsetX, y: event.offsetY };
      const { view: shownView, selection } = useDesk.getState();
      const head =
        shownView === "rig" && !event.shiftKey && !event.ctrlKey ? nearest(heads, view, point) : null;
      const numbers = fixturesOf(selection);
      drag.current = {
        from: point,
        to: point,
        carried: head && numbers.includes(head.fixture) ? numbers : [],
      };
      wake();
    };
    const move = (event: PointerEvent) => {
      if (!drag.current) return;
      drag.current = { ...drag.current, to: { x: event.offsetX, y: event.offsetY } };
      wake();
    };
    const up = (event: PointerEvent) => {
      if (!drag.current) return;
      const { from, to, carried } = drag.current;
      const way = carryOf(view, drag.current);
      drag.current = null;
      if (carried.length && isCarried(way) && Math.hypot(to.x - from.x, to.y - from.y) > 5) {
        void moveFixtures(rig!, carried, way);
        return;
      }
      const before = useDesk.getState().selection;
      if (Math.hypot(to.x - from.x, to.y - from.y) > 5) {
        const boxed = heads.filter((head) => !head.leads && inBox(project(view, placeOf(head)), from, to));
        desk.select(chosen(before, taken(boxed), event));
        return;
      }
      const head = nearest(heads, view, to);
      if (useDesk.getState().asking) {
        if (head) desk.ask({ head: head.key, attribute: null });
        return;
      }
      if (useDesk.getState().standing !== null) {
        if (head) pointedAt(head.fixture);
        return;
      }
      if (!head) {
        if (!event.shiftKey && !event.ctrlKey) desk.select([]);
        return;
      }
      const keys = taken([head]);
      const again = event.shiftKey && keys.every((key) => before.includes(key));
      desk.select(again ? before.filter((key) => !keys.includes(key)) : chosen(before, keys, event));
    };
    element.addEventListener("pointerdown", down);
    element.addEventListener("pointermove", move);
    element.addEventListener("pointerup", up);
    const stop = onEveryFrame(paint);
    const deaf = useDesk.subscribe(wake); // what is selected, and how large the stage is
    const seen = new ResizeObserver(wake);
    seen.observe(element);
    return () => {
      stop();
      deaf();
      seen.disconnect();
      element.removeEventListener("pointerdown", down);
      element.removeEventListener("pointermove", move);
      element.removeEventListener("pointerup", up);
    };
  }, [heads, rig]);

  return (
    <Frame
      data-size={size}
      data-view={shownIn}
      data-asking={asking || standing || undefined}
      aria-label="Stage"
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={`The rig, live: ${heads.length} heads. Choose heads by clicking, or with the quick selection.`}
      />
      <StageTools />
      <BlindMark />
      <CueMark />
      <ScrubMark />
      <PixelsMark />
      <StandingIn />
      {asking && <Asking>Why? Point at a light: the whole way of its values is told.</Asking>}
    </Frame>
  );
}
