import { useEffect } from "react";

import type { BankPage } from "../../../api/pages";
import { isFree } from "../../../frame/shortcuts";

/** Number keys show a page of faders and buttons, also while a fader is moved. */
export function useBankKeys(pages: BankPage[], onShow: (id: number) => void) {
  useEffect(() => {
    function down(event: KeyboardEvent) {
      if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return;
      if (!/^[1-9]$/.test(event.key) || !isFree(event)) return;
      const page = pages[Number(event.key) - 1];
      if (!page) return;
      event.preventDefault();
      onShow(page.id);
    }
    window.addEventListener("keydown", down);
    return () => window.removeEventListener("keydown", down);
  }, [pages, onShow]);
}
