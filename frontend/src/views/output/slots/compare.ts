import type { Route, SimulatedNode } from "../../../api/output";

/** What the simulated node of a protocol says that it got of a universe; null where no route leads there, or nothing came. */
export function gotBy(
  protocol: string,
  universe: number,
  nodes: readonly Pick<SimulatedNode, "protocol" | "universes">[],
  routes: readonly Pick<Route, "on" | "document" | "carried">[],
): ArrayLike<number> | null {
  const route = routes.find(
    (one) => one.on && one.document.to === "simulator" && (one.document.protocol ?? "E1.31") === protocol,
  );
  const there = route?.carried.find((pair) => pair[0] === universe)?.[1];
  const node = nodes.find((one) => one.protocol === protocol);
  return node?.universes.find((one) => one.universe === there)?.slots ?? null;
}
