import { api, putFile, take, type Headers, type Schemas } from "./client";
import { refresh, tell } from "./queries";
import { say } from "../ui/Toasts";

type Done = Schemas["RigDone"];
export type PatchLook = Schemas["CsvView"];
export type SceneLook = Schemas["MvrView"];
/** How a scene is compared: kinds by `TYPE|MODE` for those that are not known. */
export interface SceneAsked {
  by: "number" | "place";
  gone: "stay" | "go";
  kinds: Record<string, string>;
}

/** An edit of the rig: says what was refused, asks anew for what it changed. Whether it was done. */
async function edited(asked: () => Promise<Done>): Promise<Done | null> {
  try {
    const done = await asked();
    if (done.lost?.length) say(done.lost.slice(0, 3).join(" "));
    return done;
  } catch (error) {
    tell(error);
    return null;
  } finally {
    refresh();
  }
}

/** An edit that is only tried: what it would cost, in words; null where it was refused. */
async function tried(asked: () => Promise<Done>): Promise<string[] | null> {
  try {
    return (await asked()).lost ?? [];
  } catch (error) {
    tell(error);
    return null;
  }
}

export const rigEdits = {
  add: (body: Schemas["AddFixtures"]) => edited(() => take(api.POST("/api/rig/add", { body }))),
  change: (changes: Schemas["FixtureChange"][], label: string) =>
    edited(() => take(api.POST("/api/rig/change", { body: { changes, label } }))),
  typed: (numbers: number[], column: string, text: string) =>
    edited(() => take(api.POST("/api/rig/cells", { body: { numbers, column, text } }))),
  /** What typing this would cost, in words; nothing is done. */
  cost: (numbers: number[], column: string, text: string) =>
    tried(() => take(api.POST("/api/rig/cells", { body: { numbers, column, text, preview: true } }))),
  /** What uses these fixtures, in words; nothing is done. */
  uses: (numbers: number[]) =>
    tried(() => take(api.POST("/api/rig/delete", { body: { numbers, preview: true } }))),
  remove: (numbers: number[]) => edited(() => take(api.POST("/api/rig/delete", { body: { numbers } }))),
  duplicate: (numbers: number[], first: number, mirrored: boolean) =>
    edited(() => take(api.POST("/api/rig/duplicate", { body: { numbers, first, mirrored } }))),
  address: (body: Schemas["GiveAddresses"]) => edited(() => take(api.POST("/api/rig/address", { body }))),
  moveUniverse: (universe: number, to: number) =>
    edited(() => take(api.POST("/api/rig/universe", { body: { universe, to } }))),
  arrange: (numbers: number[], shape: string, given: Record<string, number>) =>
    edited(() => take(api.POST("/api/rig/arrange", { body: { numbers, shape, given } }))),
  /** A patch from a CSV file, with its columns as they are matched; with preview: what it would do. */
  patch(file: File, columns: string[] | null, preview: boolean): Promise<PatchLook | null> {
    const query = new URLSearchParams([
      ["preview", String(preview)],
      ...(columns ?? []).map((one) => ["columns", one]),
    ] as string[][]);
    return edited(() =>
      putFile<PatchLook>(`/api/rig/csv?${query.toString()}`, file),
    ) as Promise<PatchLook | null>;
  },
  /** A scene from an MVR file; with preview: what it would do. */
  scene(file: File, asked: SceneAsked, preview: boolean, headers: Headers): Promise<SceneLook | null> {
    const query = new URLSearchParams([
      ["by", asked.by],
      ["gone", asked.gone],
      ["preview", String(preview)],
      ...Object.entries(asked.kinds).map(([key, kind]) => ["kinds", `${key}|${kind}`]),
    ] as string[][]);
    const path = `/api/rig/mvr?${query.toString()}`;
    return edited(() => putFile<SceneLook>(path, file, headers)) as Promise<SceneLook | null>;
  },
  paste: (body: Schemas["PasteRows"]) => edited(() => take(api.POST("/api/rig/paste", { body }))),
};
