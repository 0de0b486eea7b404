import { MoreHorizontal } from "lucide-react";
import { Menu, MenuItem, MenuTrigger, Popover } from "react-aria-components";
import styled from "styled-components";

import { Button } from "./Button";

const Sheet = styled(Popover)`
  background: var(--raised);
  border: 1px solid var(--edge);
  border-radius: 2px;
  outline: none;
  overflow: auto;
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
    cursor: default;
  }
`;
const More = styled(Button)`
  min-width: 40px;
  padding: 0;
  color: inherit;
`;

export interface MenuAction {
  id: string;
  text: string;
  icon?: React.ReactNode;
  disabled?: boolean;
}
interface Props {
  label: string;
  actions: (MenuAction | false | null | undefined)[];
  onAction: (id: string) => void;
  /** What opens it; else three dots, named by the label. */
  opener?: React.ReactNode;
  variant?: "full" | "small" | "plain";
}

/** Things to do, behind one button. */
export function ActionMenu({ label, actions, onAction, opener, variant = "plain" }: Props) {
  const shown = actions.filter((action): action is MenuAction => !!action);
  return (
    <MenuTrigger>
      {opener ? (
        <Button data-variant={variant}>{opener}</Button>
      ) : (
        <More data-variant={variant} aria-label={`${label}: more`}>
          <MoreHorizontal size={18} aria-hidden="true" />
        </More>
      )}
      <Sheet placement="bottom end">
        <Items
          aria-label={label}
          disabledKeys={shown.filter((action) => action.disabled).map((action) => action.id)}
          onAction={(key) => onAction(String(key))}
        >
          {shown.map((action) => (
            <Entry key={action.id} id={action.id} textValue={action.text}>
              {action.icon} {action.text}
            </Entry>
          ))}
        </Items>
      </Sheet>
    </MenuTrigger>
  );
}
