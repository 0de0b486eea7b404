import { useEffect, useRef, useState } from "react";

import type { Channel } from "../../../api/kinds";
import type { Fixture } from "../../../api/rig";
import { act } from "../../../live/socket";
import { bytesOf } from "./kindDocument";

/** Channels that are held on one real fixture, over everything that plays, until the page is left. */
export function useTesting(fixture: Fixture | null) {
  const held = useRef(new Set<number>());
  const [shares, setShares] = useState<ReadonlyMap<number, number>>(new Map());
  const { universe, address, number } = fixture ?? {};
  const slotOf = (own: number) => {
    const flat = (universe! - 1) * 512 + address! - 1 + own;
    return { universe: Math.floor(flat / 512) + 1, slot: (flat % 512) + 1 };
  };
  function letGo() {
    for (const own of held.current) act({ do: "hold-slot", ...slotOf(own) });
    held.current.clear();
    setShares(new Map());
  }
  const letGoNow = useRef(letGo);
  useEffect(() => {
    letGoNow.current = letGo;
  });
  useEffect(() => () => letGoNow.current(), [number]);
  function hold(channel: Channel, share: number) {
    if (!universe || !address) return;
    bytesOf(share, channel.slots.length).forEach((value, n) => {
      held.current.add(channel.slots[n]!);
      act({ do: "hold-slot", ...slotOf(channel.slots[n]!), value });
    });
    setShares(new Map(shares).set(channel.slots[0]!, share));
  }
  return { hold, letGo, shares, some: shares.size > 0, can: Boolean(universe && address) };
}
