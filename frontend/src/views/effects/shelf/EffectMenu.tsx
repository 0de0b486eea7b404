import { Copy, Download, Footprints, Pencil, Star, Trash2, X } from "lucide-react";

import { api, take, type Schemas } from "../../../api/client";
import { useEdit } from "../../../api/queries";
import { desk, useDesk } from "../../../state";
import { say } from "../../../ui/Toasts";
import { ActionMenu } from "../../../ui/ActionMenu";
import { saveFile } from "../../../ui/saveFile";

/** An effect without what its layers do. */
export type WholeEffect = Omit<Schemas["EffectView"], "document" | "sentence">;

interface Props {
  effect: WholeEffect;
  onRename: () => void;
  onTakeOut: (() => void) | null;
}

/** What can be done with the whole effect, beyond what stands beside its name. */
export function EffectMenu({ effect, onRename, onTakeOut }: Props) {
  const path = { effect_id: effect.id };
  const duplicate = useEdit(async () => {
    const copy = await take(api.POST("/api/effects/{effect_id}/duplicate", { params: { path } }));
    desk.open(copy.id, null);
  });
  const favourite = useEdit(() =>
    take(
      api.POST("/api/effects/{effect_id}/favourite", {
        params: { path },
        body: { favourite: !effect.favourite },
      }),
    ),
  );
  const remove = useEdit(async () => {
    const { done } = await take(api.DELETE("/api/effects/{effect_id}", { params: { path } }));
    useDesk.setState({ effect: null });
    say(`${done}. Undo brings it back.`, "done");
  });
  const save = useEdit(async () => {
    const { name, document } = await take(api.GET("/api/effects/{effect_id}", { params: { path } }));
    saveFile(name, document);
  });
  const actions: Record<string, () => void> = {
    out: () => onTakeOut?.(),
    rename: onRename,
    copy: () => duplicate.mutate(undefined),
    star: () => favourite.mutate(undefined),
    save: () => save.mutate(undefined),
    bake: () => desk.bake({ kind: "effect", number: effect.id, name: effect.name }),
    remove: () => remove.mutate(undefined),
  };
  return (
    <ActionMenu
      label={effect.name}
      variant="full"
      onAction={(id) => actions[id]?.()}
      actions={[
        onTakeOut && { id: "out", text: "Take out of the draft", icon: <X size={16} /> },
        effect.kept && { id: "rename", text: "Rename", icon: <Pencil size={16} /> },
        { id: "copy", text: "Duplicate", icon: <Copy size={16} /> },
        effect.kept && {
          id: "star",
          text: effect.favourite ? "No favourite any more" : "Make it a favourite",
          icon: <Star size={16} />,
        },
        { id: "save", text: "Export as a file", icon: <Download size={16} /> },
        { id: "bake", text: "Bake for another system …", icon: <Footprints size={16} /> },
        { id: "remove", text: "Delete", icon: <Trash2 size={16} /> },
      ]}
    />
  );
}
