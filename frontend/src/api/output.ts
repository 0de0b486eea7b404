import { useQuery } from "@tanstack/react-query";

import { api, take, type Schemas } from "./client";
import { queries, refresh, tell, useShow } from "./queries";

const OFTEN_MS = 1000;
const SELDOM_MS = 2000;

export type Route = Schemas["RouteView"];
export type SimulatedNode = Schemas["NodeView"];

/** All routes, and the interfaces that they can leave by. */
export function useRoutes() {
  const { data: edition } = useShow((show) => show.routes);
  return useQuery({
    queryKey: ["routes", edition],
    enabled: edition !== undefined,
    // the client's types forget that what a route carries are pairs
    queryFn: async () => (await take(api.GET("/api/output/routes"))) as Schemas["RoutesView"],
    placeholderData: (before) => before,
    refetchInterval: SELDOM_MS * 2, // interfaces come and go
  });
}
/** Nodes and other sources that are heard. */
export const useFound = () =>
  useQuery({
    queryKey: ["found"],
    queryFn: () => take(api.GET("/api/output/found")),
    refetchInterval: OFTEN_MS,
  });
/** What the simulated nodes count and decode. */
export const useNodes = (wanted = true) =>
  useQuery({
    queryKey: ["nodes"],
    enabled: wanted,
    queryFn: async () => (await take(api.GET("/api/output/nodes"))).nodes,
    refetchInterval: OFTEN_MS,
  });
export const useProcesses = () =>
  useQuery({
    queryKey: ["processes"],
    queryFn: async () => (await take(api.GET("/api/output/processes"))).processes,
    refetchInterval: SELDOM_MS,
  });
export const useEvents = () =>
  useQuery({
    queryKey: ["events"],
    queryFn: async () => (await take(api.GET("/api/output/events"))).events,
    refetchInterval: SELDOM_MS,
  });

/** An edit of the routes: what was refused is said where it was asked for. */
async function edited<T>(asked: () => Promise<T>): Promise<T> {
  try {
    return await asked();
  } finally {
    void queries.invalidateQueries({ queryKey: ["routes"] });
    void queries.invalidateQueries({ queryKey: ["found"] });
    refresh();
  }
}

/** The same, for buttons: what was refused is said in passing. */
async function told(asked: () => Promise<unknown>): Promise<void> {
  try {
    await edited(asked);
  } catch (error) {
    tell(error);
  }
}

export const routeEdits = {
  add: (line: string) => edited(() => take(api.POST("/api/output/routes/add", { body: { line } }))),
  retype: (id: number, line: string) =>
    edited(() => take(api.POST("/api/output/routes/change", { body: { id, line } }))),
  change: (id: number, document: Schemas["RouteDocument"]) =>
    edited(() => take(api.POST("/api/output/routes/change", { body: { id, document } }))),
  switch: (id: number, on: boolean, agreed: boolean) =>
    told(() => take(api.POST("/api/output/routes/switch", { body: { id, on, agreed } }))),
  remove: (id: number) => told(() => take(api.POST("/api/output/routes/delete", { body: { id } }))),
  listen: (listen: boolean, look_on: string, agreed: boolean) =>
    told(() => take(api.POST("/api/output/listening", { body: { listen, look_on, agreed } }))),
};

/** Let a simulated node misbehave. */
export async function misbehave(body: Schemas["Misbehave"]): Promise<void> {
  try {
    queries.setQueryData(["nodes"], (await take(api.POST("/api/output/misbehave", { body }))).nodes);
  } catch (error) {
    tell(error);
  }
}
