import { useCallback, useMemo, useState } from "react";

import { api, take } from "../api/client";
import { useBusk } from "../api/busk";
import { useChosenList } from "../api/cues";
import { queries, useEdit } from "../api/queries";
import { act } from "../live/socket";
import { useDesk } from "../state";
import { say } from "../ui/Toasts";
import { ShortcutSheet } from "./ShortcutSheet";
import { useGoKey, useShortcuts } from "./shortcuts";
import { useUndo } from "./UndoTools";

/** The list that Space plays: on a busking page the one chosen for it, else the one chosen in Cues. */
function useGoList(): number | null {
  const chosen = useChosenList();
  const { data } = useBusk(useDesk((state) => state.view === "busk"));
  const page = useDesk((state) => (state.view === "busk" ? (state.busk ?? data?.pages[0]?.id) : 0));
  const top = data?.pages.find((one) => one.id === page)?.rows[0];
  return top?.go_list ?? chosen;
}

/** The keys that act everywhere, and the sheet that tells them. */
export function Shortcuts() {
  const [help, setHelp] = useState(false);
  const { undo, redo } = useUndo();
  const clear = useEdit(async () => {
    // closed first: what goes with the draft is not asked for any more
    useDesk.setState(({ effect }) => (effect?.key?.startsWith("draft:") ? { effect: null } : {}));
    queries.setQueryData(["draft"], { values: {}, listed: [], fans: [], effects: [] });
    await take(api.DELETE("/api/draft"));
    queries.removeQueries({ queryKey: ["effect"], type: "inactive" });
    say("Cleared the draft. Undo brings it back.", "done");
  });
  const clearDraft = clear.mutate;
  const commands = useMemo(
    () => ({ undo, redo, clearDraft: () => clearDraft(undefined), help: () => setHelp(true) }),
    // undo and redo are made anew on each render, but do the same
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [clearDraft],
  );
  useShortcuts(commands);
  const list = useGoList();
  useGoKey(useCallback(() => list !== null && act({ do: "go", list }), [list]));
  return <ShortcutSheet isOpen={help} onClose={() => setHelp(false)} />;
}
