import { api, take, type Schemas } from "../../../api/client";
import { edited } from "../../../api/hand";
import { JsonFiles } from "../../../ui/JsonFiles";
import { saveFile } from "../../../ui/saveFile";

/** Effects from a file, and the library into one. */
export function LibraryFiles({ effects }: { effects: Schemas["EffectView"][] }) {
  return (
    <JsonFiles
      label="Library"
      what="effects"
      count={effects.length}
      onRead={async (content) => {
        const found = await edited(() => take(api.POST("/api/effects/import", { body: { content } })));
        return found && { names: found.effects, refused: found.refused, remarks: found.remarks };
      }}
      onSave={() =>
        saveFile("library", {
          format: "zarabanda.effects/1",
          effects: effects.map((one) => one.document),
        })
      }
    />
  );
}
