import { useEffect } from "react";

import { usesKey } from "../../frame/shortcuts";
import { useDesk } from "../../state";

/** In place of a busking page: the faders and buttons. */
export const BANK = 0;
const OPEN = "[role=dialog], [role=menu], [role=listbox]";

/** Home goes from the rows to the faders, and back to the rows that were shown. */
export function useHomeKey() {
  useEffect(() => {
    let rows: number | null = null;
    function down(event: KeyboardEvent) {
      if (event.key !== "Home" || event.ctrlKey || event.altKey || event.defaultPrevented) return;
      if (usesKey(document.activeElement, event.key) || document.querySelector(OPEN)) return;
      event.preventDefault();
      const { busk } = useDesk.getState();
      if (busk !== BANK) rows = busk;
      useDesk.setState({ busk: busk === BANK ? rows : BANK });
    }
    window.addEventListener("keydown", down);
    return () => window.removeEventListener("keydown", down);
  }, []);
}
