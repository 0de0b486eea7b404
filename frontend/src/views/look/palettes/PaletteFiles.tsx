import { api, take } from "../../../api/client";
import { edited } from "../../../api/hand";
import type { Palette } from "../../../api/palettes";
import { JsonFiles } from "../../../ui/JsonFiles";
import { saveFile } from "../../../ui/saveFile";

/** Palettes from a file, and those that are shown into one. */
export function PaletteFiles({ palettes }: { palettes: Palette[] }) {
  return (
    <JsonFiles
      label="Palettes"
      what="palettes"
      variant="small"
      count={palettes.length}
      onRead={async (content) => {
        const found = await edited(() => take(api.POST("/api/palettes/import", { body: { content } })));
        return found && { names: found.palettes, refused: found.refused };
      }}
      onSave={() =>
        saveFile("palettes", {
          format: "zarabanda.palettes/1",
          palettes: palettes.map((one) => ({ name: one.name, ...one.document })),
        })
      }
    />
  );
}
