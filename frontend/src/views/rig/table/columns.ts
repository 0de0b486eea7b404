import type { Fixture, Rig } from "../../../api/rig";

/** A column of the fixture table. */
export interface GridColumn {
  id: string;
  title: string;
  width: number;
  number?: boolean;
  /** Whether it can be typed into. */
  typed: boolean;
  text: (fixture: Fixture, rig: Rig) => string;
  /** What it is sorted by, where that is not its text. */
  rank?: (fixture: Fixture) => number;
}

const MOUNTINGS: Record<string, string> = {
  "0 0 0": "standing",
  "0 180 0": "hanging",
  "0 90 0": "on the left",
  "0 -90 0": "on the right",
};
const metres = (value: number) =>
  value
    .toFixed(2)
    .replace(/\.?0+$/, "")
    .replace(/^-0$/, "0");
const slot = (fixture: Fixture) =>
  fixture.universe === null ? Infinity : fixture.universe * 512 + (fixture.address ?? 0);

export const COLUMNS: GridColumn[] = [
  {
    id: "number",
    title: "Number",
    width: 68,
    number: true,
    typed: true,
    text: (f) => String(f.number),
    rank: (f) => f.number,
  },
  { id: "name", title: "Name", width: 92, typed: true, text: (f) => f.name },
  { id: "kind", title: "Kind", width: 154, typed: false, text: (f, rig) => kindOf(f, rig) },
  {
    id: "mode",
    title: "Mode",
    width: 136,
    typed: true,
    text: (f, rig) => rig.modes.get(f.mode_id)?.label ?? "",
  },
  {
    id: "address",
    title: "Address",
    width: 74,
    number: true,
    typed: true,
    text: (f) => (f.universe === null ? "none" : `${f.universe}.${f.address}`),
    rank: slot,
  },
  {
    id: "x",
    title: "x, m",
    width: 68,
    number: true,
    typed: true,
    text: (f) => metres(f.place[0]),
    rank: (f) => f.place[0],
  },
  {
    id: "y",
    title: "y, m",
    width: 56,
    number: true,
    typed: true,
    text: (f) => metres(f.place[1]),
    rank: (f) => f.place[1],
  },
  {
    id: "z",
    title: "z, m",
    width: 56,
    number: true,
    typed: true,
    text: (f) => metres(f.place[2]),
    rank: (f) => f.place[2],
  },
  { id: "rotation", title: "Rotation", width: 84, typed: true, text: (f) => turn(f.rotation) },
  { id: "cell_order", title: "Cells", width: 110, typed: true, text: (f, rig) => cellsText(f, rig) },
  { id: "groups", title: "Groups", width: 170, typed: false, text: (f) => f.groups.join("; ") },
  { id: "notes", title: "Notes", width: 140, typed: true, text: (f) => f.notes },
  { id: "layer", title: "Layer", width: 110, typed: true, text: (f) => f.layer },
  { id: "class_name", title: "Class", width: 110, typed: true, text: (f) => f.class_name },
];

const kindOf = (fixture: Fixture, rig: Rig) => {
  const mode = rig.modes.get(fixture.mode_id);
  return mode ? [mode.maker, mode.model || mode.name].filter(Boolean).join(" ") : "";
};

/** A rotation as it is typed: how it is mounted, or the three turns. */
export function turn(rotation: readonly number[]): string {
  const text = rotation.map((degrees) => String(Math.round(degrees * 10) / 10)).join(" ");
  return MOUNTINGS[text] ?? text;
}

function cellsText(fixture: Fixture, rig: Rig): string {
  const cells = rig.modes.get(fixture.mode_id)?.cells ?? 0;
  if (!cells) return "";
  const order = fixture.cell_order === "reversed" ? "other way round" : fixture.cell_order;
  return order ? `${cells}, ${order}` : String(cells);
}

/** What an edit of a cell begins with: what is shown, or what stands behind a shorter text. */
export function textToEdit(column: GridColumn, fixture: Fixture, rig: Rig): string {
  if (column.id === "mode") return rig.modes.get(fixture.mode_id)?.name ?? "";
  if (column.id === "cell_order") return fixture.cell_order || "as it was made";
  return column.text(fixture, rig);
}

/** Fixtures that have all these words somewhere in their rows, in an order. */
export function shownRows(
  rig: Rig,
  columns: readonly GridColumn[],
  words: string,
  sort: { column: string; down: boolean },
): Fixture[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const found = wanted.length
    ? rig.fixtures.filter((fixture) => {
        const text = columns
          .map((column) => column.text(fixture, rig))
          .join(" ")
          .toLowerCase();
        return wanted.every((word) => text.includes(word));
      })
    : [...rig.fixtures];
  const column = COLUMNS.find((one) => one.id === sort.column) ?? COLUMNS[0]!;
  const { rank } = column;
  if (rank) found.sort((a, b) => rank(a) - rank(b) || a.number - b.number);
  else found.sort((a, b) => column.text(a, rig).localeCompare(column.text(b, rig)) || a.number - b.number);
  return sort.down ? found.reverse() : found;
}

/** Rows as a spreadsheet takes them: titles, then columns apart by tabs. */
export function asRows(fixtures: readonly Fixture[], columns: readonly GridColumn[], rig: Rig): string {
  const typed = columns.filter((column) => column.typed);
  const lines = fixtures.map((fixture) =>
    typed.map((column) => textToEdit(column, fixture, rig).replace(/[\t\n]/g, " ")).join("\t"),
  );
  return [typed.map((column) => column.title).join("\t"), ...lines].join("\n");
}
