import { useEffect } from "react";

import type { BankPage } from "../../../api/pages";
import { usesKey } from "../../../frame/shortcuts";

const OPEN = "[role=dialog], [role=menu], [role=listbox]";

/** Number keys show a page of faders and buttons, also while a fader is moved. */
export function useBankKeys(pages: BankPage[], onShow: (id: number) => void) {
  useEffect(() => {
    function down(event: KeyboardEvent) {
      if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey || event.defaultPrevented) return;
      if (!/^[1-9]$/.test(event.key) || document.querySelector(OPEN)) return;
      if (usesKey(document.activeElement, event.key)) return;
      const page = pages[Number(event.key) - 1];
      if (!page) return;
      event.preventDefault();
      onShow(page.id);
    }
    window.addEventListener("keydown", down);
    return () => window.removeEventListener("keydown", down);
  }, [pages, onShow]);
}
