import type { Canvas } from "../../../api/pixels";

/** Columns and rows that have room for all cells: four times as wide as tall, where they do not fit as they are. */
export function sidesFor({ heads = [], columns = 16, rows = 16 }: Canvas): { columns: number; rows: number } {
  if (heads.length <= columns * rows && heads.length > (columns * rows) / 2) return { columns, rows };
  const tall = Math.max(1, Math.round(Math.sqrt(heads.length / 4)));
  return { columns: Math.max(1, Math.ceil(heads.length / tall)), rows: tall };
}

/** Whether a canvas has a box for each of its cells; on stage each has its own place. */
export const hasRoom = ({ kind, everything, heads = [], columns = 16, rows = 16 }: Canvas): boolean =>
  kind !== "grid" || !!everything || heads.length <= columns * rows;
