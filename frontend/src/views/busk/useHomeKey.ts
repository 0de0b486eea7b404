import { useEffect } from "react";

import { isFree } from "../../frame/shortcuts";
import { useDesk } from "../../state";

/** In place of a busking page: the faders and buttons. */
export const BANK = 0;

/** Home goes from the rows to the faders, and back to the rows that were shown. */
export function useHomeKey() {
  useEffect(() => {
    let rows: number | null = null;
    function down(event: KeyboardEvent) {
      if (event.key !== "Home" || event.ctrlKey || event.altKey || !isFree(event)) return;
      event.preventDefault();
      const { busk } = useDesk.getState();
      if (busk !== BANK) rows = busk;
      useDesk.setState({ busk: busk === BANK ? rows : BANK });
    }
    window.addEventListener("keydown", down);
    return () => window.removeEventListener("keydown", down);
  }, []);
}
