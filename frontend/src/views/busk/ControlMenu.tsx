import { MoreHorizontal } from "lucide-react";
import { Menu, MenuItem, MenuTrigger, Popover } from "react-aria-components";
import styled from "styled-components";

import { api, take, type Schemas } from "../../api/client";
import { useEdit } from "../../api/queries";
import { desk } from "../../state";
import { say } from "../../ui/Toasts";
import { Button } from "../../ui/Button";

const Opener = styled(Button)`
  color: inherit;
  min-width: 40px;
  padding: 0;
`;
const Sheet = styled(Popover)`
  background: var(--raised);
  border: 1px solid var(--edge);
  border-radius: 2px;
`;
const Items = styled(Menu)`
  padding: 4px;
  outline: none;
`;
const Entry = styled(MenuItem)`
  min-height: 40px;
  padding: 0 12px;
  display: flex;
  align-items: center;
  cursor: pointer;
  border-radius: 2px;
  outline: none;
  &[data-focused],
  &[data-hovered] {
    background: var(--line);
  }
`;

/** What can be done with a control itself. */
export function ControlMenu({ control }: { control: Schemas["ControlView"] }) {
  const remove = useEdit(async () => {
    await take(
      api.DELETE("/api/pages/controls/{control_id}", { params: { path: { control_id: control.id } } }),
    );
    say(`${control.name} was taken off the page. Undo brings it back.`, "done");
  });
  const actions: Record<string, () => void> = {
    edit: () => {
      desk.open(control.effect_id, control.key);
      desk.select(control.heads);
      desk.show("effects");
    },
    select: () => desk.select(control.heads),
    remove: () => remove.mutate(undefined),
  };
  return (
    <MenuTrigger>
      <Opener data-variant="plain" aria-label={`${control.name}: more`}>
        <MoreHorizontal size={16} aria-hidden="true" />
      </Opener>
      <Sheet placement="top end">
        <Items aria-label={control.name} onAction={(key) => actions[String(key)]?.()}>
          <Entry id="edit">Edit {control.effect}</Entry>
          <Entry id="select">Select its {control.heads.length} heads</Entry>
          <Entry id="remove">Take off the page</Entry>
        </Items>
      </Sheet>
    </MenuTrigger>
  );
}
