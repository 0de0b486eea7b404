import { useQuery } from "@tanstack/react-query";

import { say } from "../ui/Toasts";
import { api, putFile, take, type Schemas } from "./client";
import { refresh, tell, useShow } from "./queries";

export type KindDocument = Required<Schemas["ModeDocument"]>;
export type KindSheet = Omit<Schemas["KindSheet"], "document"> & { document: KindDocument };
export type Channel = Schemas["ChannelPart"];
export type GdtfLook = Schemas["GdtfView"];

/** Everything about a kind, by the name of its mode. */
export function useKindSheet(name: string) {
  const { data: edition } = useShow((show) => show.rig);
  return useQuery({
    queryKey: ["kind", name, edition],
    enabled: edition !== undefined,
    queryFn: async () =>
      (await take(api.GET("/api/kinds/sheet", { params: { query: { name } } }))) as KindSheet,
    placeholderData: (before) => (before?.document.name === name ? before : undefined),
    retry: false,
  });
}

async function edited<Answer>(asked: Promise<Answer>): Promise<Answer | null> {
  try {
    return await asked;
  } catch (error) {
    tell(error);
    return null;
  } finally {
    refresh();
  }
}

export const kindEdits = {
  /** Modes of a GDTF file; without `modes` only what is in it. */
  async gdtf(file: File, modes: string[] | null): Promise<GdtfLook | null> {
    const query = new URLSearchParams([
      ["preview", String(modes === null)],
      ...(modes ?? []).map((one) => ["modes", one]),
    ] as string[][]);
    const answer = await edited(putFile<GdtfLook>(`/api/kinds/gdtf?${query.toString()}`, file));
    if (answer && modes) say(`${answer.done}.`, "done");
    return answer;
  },
  change: (id: number, document: KindDocument, preview: boolean) =>
    edited(
      take(
        api.PUT("/api/kinds/{mode_id}", { params: { path: { mode_id: id } }, body: { document, preview } }),
      ),
    ),
  copy: (name: string, model: string) =>
    edited(take(api.POST("/api/kinds/copies", { body: { name, model } }))),
  async remove(id: number): Promise<boolean> {
    const done = await edited(
      take(api.DELETE("/api/kinds/{mode_id}", { params: { path: { mode_id: id } } })),
    );
    if (done) say(`${done.done}. Undo brings it back.`, "done");
    return !!done;
  },
  async keepPicture(file: File): Promise<string> {
    const answer = await edited(putFile<Schemas["WheelPictureKept"]>("/api/kinds/pictures", file));
    return answer?.picture ?? "";
  },
};
