import { useEffect, useState } from "react";

import type { BuskRow, Section } from "../../../api/busk";
import { isFree } from "../../../frame/shortcuts";
import { act } from "../../../live/socket";
import { padAt, rowAt } from "../keys";
import { onPage, rooms, shownSections, type Aspect } from "../layout";

interface Props {
  rows: BuskRow[];
  chosen: BuskRow;
  onChoose: (row: number) => void;
  aspect: Aspect;
  pages: Record<string, number>;
  width: number;
  onTurn: (section: Section, by: number) => void;
}
/** Keys that turn the pages of pads of all sections. */
const TURN: Record<string, number> = { PageDown: 1, PageUp: -1 };

/** Number keys choose a row, letters press its pads, page keys turn pages of pads; `letters`: whether Alt is held, so that they
 * are shown. */
export function usePadKeys({ rows, chosen, onChoose, aspect, pages, width, onTurn }: Props) {
  const [letters, setLetters] = useState(false);
  useEffect(() => {
    const held = new Map<string, { row: number; pad: number }>();
    function pressed(event: KeyboardEvent) {
      const sections = shownSections(chosen, aspect);
      const found = padAt(event.key, sections);
      const room = found && rooms(sections, width).find((one) => one.section === found.section);
      if (!found || !room) return false;
      const pad = onPage(chosen[found.section], room.seen, pages[found.section] ?? 0)[found.place];
      if (!pad) return false;
      act({ do: "pad", row: chosen.id, pad: pad.id, down: true });
      if (pad.while_held) held.set(event.code, { row: chosen.id, pad: pad.id });
      return true;
    }
    function down(event: KeyboardEvent) {
      if (event.key === "Alt") setLetters(true);
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || !isFree(event)) return;
      const number = rowAt(event.key);
      const row = number === null ? undefined : rows[number];
      if (row) onChoose(row.id);
      else if (event.key in TURN)
        for (const section of shownSections(chosen, aspect)) onTurn(section, TURN[event.key]!);
      else if (event.key === "Tab" || !pressed(event)) return;
      event.preventDefault();
    }
    function up(event: KeyboardEvent) {
      if (event.key === "Alt") setLetters(false);
      const pad = held.get(event.code);
      if (!pad) return;
      held.delete(event.code);
      act({ do: "pad", ...pad, down: false });
    }
    const away = () => setLetters(false);
    window.addEventListener("keydown", down);
    window.addEventListener("keyup", up);
    window.addEventListener("blur", away);
    return () => {
      window.removeEventListener("keydown", down);
      window.removeEventListener("keyup", up);
      window.removeEventListener("blur", away);
      for (const pad of held.values()) act({ do: "pad", ...pad, down: false });
    };
  }, [rows, chosen, onChoose, aspect, pages, width, onTurn]);
  return letters;
}
