import type { Layer, MapEdits } from "../../api/pixels";
import type { Schemas } from "../../api/client";
import type { Hands } from "../effects/editor/useEditor";

/** The ways in which the sentence of a layer changes it. */
export const handsOf = (layer: Layer, edits: MapEdits): Hands => ({
  preview: ({ path, value }) => edits.preview(layer.id, path!, value),
  commit: async ({ path, value }) => {
    await edits.set(layer.id, path!, value);
  },
});

/** The ways in which the sentence of a map changes it. */
export const handsOfMap = (edits: MapEdits): Hands => ({
  preview: () => undefined,
  commit: async ({ path, value }) => {
    await edits.change({ [path!]: value } as Schemas["MapChange"]);
  },
});
