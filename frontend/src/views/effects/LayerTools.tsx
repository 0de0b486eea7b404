import { ArrowDown, ArrowUp, Copy, MoreHorizontal, Trash2, Volume, VolumeX } from "lucide-react";
import { Menu, MenuItem, MenuTrigger, Popover } from "react-aria-components";
import styled from "styled-components";

import { Button } from "../../ui/Button";
import type { Change, Editor } from "./useEditor";

const Sheet = styled(Popover)`
  background: var(--raised);
  border: 1px solid var(--edge);
  border-radius: 2px;
  outline: none;
`;
const Items = styled(Menu)`
  padding: 4px;
  min-width: 200px;
  outline: none;
`;
const Entry = styled(MenuItem)`
  min-height: 40px;
  padding: 0 12px;
  display: flex;
  align-items: center;
  gap: 10px;
  cursor: pointer;
  border-radius: 2px;
  outline: none;
  &[data-focused],
  &[data-hovered] {
    background: var(--line);
  }
  &[data-disabled] {
    color: var(--quiet);
  }
`;
const Opener = styled(Button)`
  min-width: 40px;
  min-height: 34px;
  padding: 0;
`;

/** What can be done to a whole layer. */
export function LayerTools({
  editor,
  number,
  count,
  muted,
}: {
  editor: Editor;
  number: number;
  count: number;
  muted: boolean;
}) {
  const changes: Record<string, Change> = {
    mute: { operation: "set", path: `layers.${number}.muted`, value: !muted },
    copy: { operation: "duplicate-layer", path: "", value: number },
    up: { operation: "move-layer", path: String(number), value: number - 1 },
    down: { operation: "move-layer", path: String(number), value: number + 1 },
    remove: { operation: "remove-layer", path: "", value: number },
  };
  const disabled = [number === 0 && "up", number === count - 1 && "down", count === 1 && "remove"].filter(
    (key): key is string => !!key,
  );
  return (
    <MenuTrigger>
      <Opener data-variant="plain" aria-label={`Layer ${number + 1}: more`}>
        <MoreHorizontal size={18} aria-hidden="true" />
      </Opener>
      <Sheet placement="bottom end">
        <Items
          aria-label={`Layer ${number + 1}`}
          disabledKeys={disabled}
          onAction={(key) => void editor.commit(changes[String(key)]!)}
        >
          <Entry id="mute">
            {muted ? <Volume size={16} /> : <VolumeX size={16} />} {muted ? "Let it act again" : "Mute"}
          </Entry>
          <Entry id="copy">
            <Copy size={16} /> Duplicate
          </Entry>
          <Entry id="up">
            <ArrowUp size={16} /> Move up
          </Entry>
          <Entry id="down">
            <ArrowDown size={16} /> Move down
          </Entry>
          <Entry id="remove">
            <Trash2 size={16} /> Remove
          </Entry>
        </Items>
      </Sheet>
    </MenuTrigger>
  );
}
