import { ArrowDown, ArrowUp, Copy, Ear, Trash2, Volume, VolumeX } from "lucide-react";

import { ActionMenu } from "../../../ui/ActionMenu";
import type { Change, Editor } from "./useEditor";

interface Props {
  editor: Editor;
  number: number;
  layers: { muted?: boolean }[];
}

/** What can be done to a whole layer. */
export function LayerTools({ editor, number, layers }: Props) {
  const count = layers.length;
  const muted = !!layers[number]?.muted;
  const alone = !muted && count > 1 && layers.every((layer, n) => n === number || layer.muted);
  const changes: Record<string, Change> = {
    mute: { operation: "set", path: `layers.${number}.muted`, value: !muted },
    solo: { operation: "solo-layer", path: "", value: number },
    copy: { operation: "duplicate-layer", path: "", value: number },
    up: { operation: "move-layer", path: String(number), value: number - 1 },
    down: { operation: "move-layer", path: String(number), value: number + 1 },
    remove: { operation: "remove-layer", path: "", value: number },
  };
  return (
    <ActionMenu
      label={`Layer ${number + 1}`}
      onAction={(id) => void editor.commit(changes[id]!)}
      actions={[
        {
          id: "mute",
          text: muted ? "Let it act again" : "Mute",
          icon: muted ? <Volume size={16} /> : <VolumeX size={16} />,
        },
        {
          id: "solo",
          text: alone ? "Let all layers act" : "Let it act alone",
          icon: <Ear size={16} />,
          disabled: count === 1,
        },
        { id: "copy", text: "Duplicate", icon: <Copy size={16} /> },
        { id: "up", text: "Move up", icon: <ArrowUp size={16} />, disabled: number === 0 },
        { id: "down", text: "Move down", icon: <ArrowDown size={16} />, disabled: number === count - 1 },
        { id: "remove", text: "Remove", icon: <Trash2 size={16} />, disabled: count === 1 },
      ]}
    />
  );
}
