import { Copy, Download, MoreHorizontal, Star, Trash2, X } from "lucide-react";
import { Menu, MenuItem, MenuTrigger, Popover } from "react-aria-components";
import styled from "styled-components";

import { api, take, type Schemas } from "../../api/client";
import { useEdit } from "../../api/queries";
import { desk, useDesk } from "../../state";
import { say } from "../../ui/Toasts";
import { Button } from "../../ui/Button";
import { saveFile } from "./files";

const Sheet = styled(Popover)`
  background: var(--raised);
  border: 1px solid var(--edge);
  border-radius: 2px;
  outline: none;
`;
const Items = styled(Menu)`
  padding: 4px;
  min-width: 220px;
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
`;
const Opener = styled(Button)`
  min-width: 40px;
  padding: 0;
`;

/** What can be done with the whole effect, beyond what stands beside its name. */
export function EffectMenu({
  effect,
  onTakeOut,
}: {
  effect: Schemas["EffectView"];
  onTakeOut: (() => void) | null;
}) {
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
  const actions: Record<string, () => void> = {
    out: () => onTakeOut?.(),
    copy: () => duplicate.mutate(undefined),
    star: () => favourite.mutate(undefined),
    save: () => saveFile(effect.name, effect.document),
    remove: () => remove.mutate(undefined),
  };
  return (
    <MenuTrigger>
      <Opener aria-label={`${effect.name}: more`}>
        <MoreHorizontal size={18} aria-hidden="true" />
      </Opener>
      <Sheet placement="bottom end">
        <Items aria-label={effect.name} onAction={(key) => actions[String(key)]?.()}>
          {onTakeOut && (
            <Entry id="out">
              <X size={16} /> Take out of the draft
            </Entry>
          )}
          <Entry id="copy">
            <Copy size={16} /> Duplicate
          </Entry>
          {effect.kept && (
            <Entry id="star">
              <Star size={16} /> {effect.favourite ? "No favourite any more" : "Make it a favourite"}
            </Entry>
          )}
          <Entry id="save">
            <Download size={16} /> Export as a file
          </Entry>
          <Entry id="remove">
            <Trash2 size={16} /> Delete
          </Entry>
        </Items>
      </Sheet>
    </MenuTrigger>
  );
}
