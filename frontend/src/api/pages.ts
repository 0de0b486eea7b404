import { useQuery } from "@tanstack/react-query";

import { say } from "../ui/Toasts";
import { api, take, type Schemas } from "./client";
import { edited } from "./hand";

export type Control = Schemas["ControlView"];
export type Driven = Schemas["Driven"];
export type Kind = Driven["kind"];
export type Mode = Control["mode"];
export type BankPage = Schemas["PageView"];

/** All pages of faders and buttons. */
export const usePages = () => useQuery({ queryKey: ["pages"], queryFn: () => take(api.GET("/api/pages")) });

const page = (page_id: number) => ({ params: { path: { page_id } } });
const control = (control_id: number) => ({ params: { path: { control_id } } });

/** What can be done with pages and what is on them: each is one edit, and what was refused is told. */
export const pageEdits = {
  make: (name: string) => edited(() => take(api.POST("/api/pages", { body: { name } }))),
  rename: (id: number, name: string) =>
    edited(() => take(api.POST("/api/pages/{page_id}/rename", { ...page(id), body: { name } }))),
  remove: async (id: number) => {
    const done = await edited(() => take(api.DELETE("/api/pages/{page_id}", page(id))));
    if (done) say(`${done.done}. Undo brings it back.`, "done");
    return done;
  },
  order: (ids: number[]) => edited(() => take(api.POST("/api/pages/order", { body: { ids } }))),
  put: (id: number, body: Schemas["NewControl"]) =>
    edited(() => take(api.POST("/api/pages/{page_id}/controls", { ...page(id), body }))),
  change: (id: number, body: Schemas["ControlChange"]) =>
    edited(() => take(api.PUT("/api/pages/controls/{control_id}", { ...control(id), body }))),
  takeOff: async (one: Control) => {
    const done = await edited(() => take(api.DELETE("/api/pages/controls/{control_id}", control(one.id))));
    if (done) say(`${one.name} was taken off the page. Undo brings it back.`, "done");
    return done;
  },
};

/** Places of a page on which nothing is: counted from 1. */
export function freePlaces(controls: readonly Control[], fader: boolean, most: number): number[] {
  const taken = new Set(controls.filter((one) => (one.mode === "fader") === fader).map((one) => one.place));
  return Array.from({ length: most }, (_, n) => n + 1).filter((place) => !taken.has(place));
}
