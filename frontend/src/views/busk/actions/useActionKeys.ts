import { useEffect } from "react";

import { useActionLists } from "../../../api/actionLists";
import { isFree } from "../../../frame/shortcuts";
import { act } from "../../../live/socket";

/** Keys run action lists: Shift with a figure, held as long as it is down. */
export function useActionKeys() {
  const { data: lists } = useActionLists();
  useEffect(() => {
    const held = new Map<string, number>();
    function down(event: KeyboardEvent) {
      if (!event.shiftKey || event.ctrlKey || event.altKey || event.repeat || !isFree(event)) return;
      const key = /^Digit[1-9]$/.test(event.code) ? `Shift+${event.code.slice(5)}` : "";
      const list = key && lists?.find((one) => one.document.key === key);
      if (!list) return;
      event.preventDefault();
      held.set(event.code, list.id);
      act({ do: "run-actions", actions: list.id, down: true });
    }
    function up(event: KeyboardEvent) {
      const list = held.get(event.code);
      if (list === undefined) return;
      held.delete(event.code);
      act({ do: "run-actions", actions: list, down: false });
    }
    window.addEventListener("keydown", down);
    window.addEventListener("keyup", up);
    return () => {
      window.removeEventListener("keydown", down);
      window.removeEventListener("keyup", up);
      for (const list of held.values()) act({ do: "run-actions", actions: list, down: false });
    };
  }, [lists]);
}
