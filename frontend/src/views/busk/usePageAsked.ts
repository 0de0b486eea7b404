import { useEffect, useRef } from "react";

import { useConnection, useLivePart } from "../../live/socket";
import { useDesk } from "../../state";
import { BANK } from "./useHomeKey";

/** Shows the page of faders and buttons that a button or an action list asks for: of this page's hands, or for all. */
export function usePageAsked() {
  const asked = useLivePart((state) => state?.page ?? null);
  const known = useRef<number | null>(null);
  useEffect(() => {
    const before = known.current;
    known.current = asked?.number ?? 0;
    if (!asked || before === null || asked.number <= before) return;
    const { holder } = useConnection.getState();
    if (!asked.holder || asked.holder === holder) useDesk.setState({ busk: BANK, bank: asked.page });
  }, [asked]);
}
