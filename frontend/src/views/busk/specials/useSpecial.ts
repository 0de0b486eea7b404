import { useEffect, useState } from "react";

import { specialEdits, type Special, type SpecialDocument } from "../../../api/specials";
import { act } from "../../../live/socket";
import { desk, useDesk } from "../../../state";

const NEW: SpecialDocument = {
  heads: [],
  aim: { point: [0, 1.5, 1.5], place: null },
  level: 100,
  colour: "#ffffff",
  beam: {},
  out: 1,
  move: 0,
  up: 1,
};

/** A special while it is made or changed: one that is not kept yet is kept when it is pressed. */
export function useSpecial(special: Special | null, onKept: (id: number) => void) {
  const [name, setName] = useState(special?.name ?? "");
  const [document, setDocument] = useState<SpecialDocument>(
    special?.document ?? { ...NEW, heads: useDesk.getState().selection },
  );
  const [aim, setAim] = useState(special?.aim ?? null);
  const [before, setBefore] = useState(special);
  if (special !== before) {
    setBefore(special); // it was changed elsewhere, or by undo
    if (special) {
      setName(special.name);
      setDocument(special.document);
      setAim(special.aim);
    }
  }
  useEffect(() => {
    if (special || !document.heads?.length) return;
    let asked = true;
    void specialEdits.tryAim(document).then(
      (told) => asked && setAim(told),
      () => undefined,
    );
    return () => void (asked = false);
  }, [special, document]);
  useEffect(() => {
    useDesk.setState({ unreached: Object.keys(aim?.unreached ?? {}) });
    return () => useDesk.setState({ unreached: [] });
  }, [aim]);
  async function keep(changes: Partial<SpecialDocument> = {}, called = name) {
    const body = { name: called.trim() || null, document: { ...document, ...changes } };
    const kept = await (special ? specialEdits.change(special.id, body) : specialEdits.make(body));
    if (kept && !special) onKept(kept.id);
    return kept;
  }
  return {
    name,
    document,
    aim: document.heads?.length ? aim : null,
    rename: setName,
    /** Seen here; kept with the next change that is. */
    show: (changes: Partial<SpecialDocument>) => setDocument({ ...document, ...changes }),
    /** Kept at once where it is one that is kept. */
    change: (changes: Partial<SpecialDocument>) => {
      setDocument({ ...document, ...changes });
      if (special) void keep(changes);
    },
    keep,
    press: async () => {
      const kept = special ?? (await keep());
      if (kept) act({ do: "special", special: kept.id });
    },
    select: () => desk.select(document.heads ?? []),
  };
}
