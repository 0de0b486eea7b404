import { useQuery } from "@tanstack/react-query";

import { say } from "../ui/Toasts";
import { api, take, type Schemas } from "./client";
import { edited } from "./hand";
import { refresh } from "./queries";

export type ActionList = Schemas["ActionListView"];

/** All action lists with their steps. */
export const useActionLists = () =>
  useQuery({
    queryKey: ["action-lists"],
    queryFn: async () => (await take(api.GET("/api/action-lists"))).action_lists as ActionList[],
  });

const path = (action_list_id: number) => ({ params: { path: { action_list_id } } });

/** What can be done with action lists: each is one edit. */
export const actionListEdits = {
  make: (body: Schemas["KeepActions"]) => edited(() => take(api.POST("/api/action-lists", { body }))),
  /** Refused is thrown: what is wrong is said in the form. */
  change: async (id: number, body: Schemas["KeepActions"]) => {
    const done = await take(api.PUT("/api/action-lists/{action_list_id}", { ...path(id), body }));
    refresh();
    return done;
  },
  recorded: async (body: Schemas["RecordedHands"]) => {
    const done = await edited(() => take(api.POST("/api/action-lists/recorded", { body })));
    if (done) say(`${done.done}.`, "done");
    return done;
  },
  remove: async (id: number) => {
    const done = await edited(() => take(api.DELETE("/api/action-lists/{action_list_id}", path(id))));
    if (done) say(`${done.done}. Undo brings it back.`, "done");
  },
};
