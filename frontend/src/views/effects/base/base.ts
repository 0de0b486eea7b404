import { useMemo } from "react";

import { api, take, type Schemas } from "../../../api/client";
import { Newest } from "../../../api/newest";
import { refresh, tell } from "../../../api/queries";

export type Base = Schemas["BaseValueView"];

/** The same value for all heads. */
export const forAll = (heads: readonly string[], value: number | null) =>
  Object.fromEntries(heads.map((key) => [key, value]));

export interface BaseEdit {
  preview: (values: Record<string, Record<string, number | null>>) => void;
  /** False where it was refused. */
  commit: (values: Record<string, Record<string, number | null>>, label: string) => Promise<boolean>;
  takeBack: (values: readonly Base[]) => void;
}

type Change = Record<string, Record<string, number | null>>;

function post(values: Change, preview: boolean, label: string) {
  // the generated type of a map of maps is narrower than the document says
  const body = { values, preview, label } as unknown as Schemas["DraftValues"];
  return take(api.POST("/api/draft/values", { body }));
}

/** Ways to set base values: previews while a control moves (newest wins), one edit when it is let go. */
export function useBaseEdit(): BaseEdit {
  return useMemo(() => {
    const previews = new Newest((values: Change) => post(values, true, ""), tell);
    async function commit(values: Change, label: string) {
      previews.drop();
      try {
        await post(values, false, label);
        return true;
      } catch (error) {
        tell(error);
        return false;
      } finally {
        refresh();
      }
    }
    return {
      preview: (values) => void previews.show(values),
      commit,
      takeBack: (values) =>
        void commit(
          Object.fromEntries(values.map(({ attribute, heads }) => [attribute, forAll(heads, null)])),
          "Take back values",
        ),
    };
  }, []);
}
