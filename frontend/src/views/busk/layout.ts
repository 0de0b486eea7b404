import type { BuskRow, Section } from "../../api/busk";

/** How wide things are on a busking page, in pixels; targets are 40 or more. */
export const NAME = 112;
export const LEVEL = 70;
export const GAP = 6;
export const PAD = 40;
const POSITION = 46;
const TOOLS = 86;
const FEWEST_COLOURS = 5;
const MOST_EFFECT = 84;

/** A section of a row: how wide, how wide each pad in it is, and how many are seen at once. */
export interface Room {
  section: Section;
  width: number;
  pad: number;
  seen: number;
}

/** Which of position and beam is shown in their common place. */
export type Aspect = "position" | "beam";

/** What of a row is shown: of position and beam the one that was chosen, where it carries that. */
export function shownSections(row: Pick<BuskRow, "kind" | "carries">, aspect: Aspect): Section[] {
  if (row.kind === "messages") return ["messages"];
  const order: Section[] = ["colour", aspect, "effects"];
  return row.kind === "haze" ? [] : order.filter((section) => row.carries.includes(section));
}

/** Sections side by side in `width` pixels behind name and level. Rows without a section give its room to the one before it; `none`
 * at the head of a section is one pad more. */
export function rooms(sections: Section[], width: number): Room[] {
  const { colours, middle } = shares(width);
  const wide: Partial<Record<Section, number>> = { colour: colours, position: middle, beam: middle };
  const last = sections.at(-1);
  let left = width;
  return sections.map((section, n) => {
    const next = sections[n + 1];
    let own = wide[section] ?? 0;
    if (section === "colour" && !sections.some((one) => one === "position" || one === "beam"))
      own += middle + GAP;
    if (section === last) own = left;
    left -= own + (next ? GAP : 0);
    return room(section, own);
  });
}

/** How much of `width` goes to colours, and to positions or beams; the rest is for effects. Where there is little, pads of positions
 * and effects give way in turn, until a few colours are seen. */
function shares(width: number) {
  let [positions, effects] = [4, 4];
  const own = () => ({
    middle: PAD + positions * POSITION,
    colours: width - TOOLS - effects * PAD - PAD - positions * POSITION - GAP * 2,
  });
  while (own().colours < FEWEST_COLOURS * PAD && positions + effects > 4)
    if (effects > positions) effects -= 1;
    else positions -= 1;
  return own();
}

function room(section: Section, width: number): Room {
  const head = section === "effects" ? TOOLS : section === "messages" ? 0 : PAD;
  const least = section === "position" || section === "messages" ? POSITION : PAD;
  const seen = Math.max(Math.floor((width - head) / least), 1);
  const most = section === "effects" ? MOST_EFFECT : section === "messages" ? 96 : 64;
  const pad = Math.min(Math.floor((width - head) / seen), most);
  return { section, width, pad, seen };
}

/** How wide pads are made when there are fewer than fit. */
export function padWidth(room: Room, count: number): number {
  const head = room.section === "effects" ? TOOLS : room.section === "messages" ? 0 : PAD;
  const most = room.section === "effects" ? MOST_EFFECT : room.section === "messages" ? 96 : 64;
  return Math.min(Math.floor((room.width - head) / Math.max(Math.min(count, room.seen), 1)), most);
}

/** How many pages of pads there are. */
export const pagesOf = (count: number, seen: number) => Math.max(Math.ceil(count / seen), 1);

/** The pads of a page, counted from 0; of a row that has fewer pages the last. */
export function onPage<T>(pads: readonly T[], seen: number, page: number): T[] {
  const at = Math.min(page, pagesOf(pads.length, seen) - 1);
  return pads.slice(at * seen, (at + 1) * seen);
}

const ROW = 42;
const ROOMY = 48;
/** How high rows are in `height` pixels, and how many of them are seen at once. */
export function rowRoom(rows: number, height: number) {
  const seen = Math.max(Math.min(rows, Math.floor(height / ROW)), 1);
  return { seen, height: Math.max(Math.min(Math.floor(height / seen), ROOMY), ROW) };
}
