import { ChevronDown } from "lucide-react";
import {
  Button,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
  Select,
  SelectValue,
  type Key,
} from "react-aria-components";
import styled from "styled-components";

const Frame = styled(Select)`
  display: grid;
  gap: 4px;
  min-width: 0;
  &[data-variant="row"] {
    grid-auto-flow: column;
    align-items: center;
    gap: 8px;
  }
`;
const Opener = styled(Button)`
  display: inline-flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  min-height: 40px;
  padding: 0 10px 0 12px;
  border: 1px solid var(--edge);
  border-radius: 2px;
  background: transparent;
  color: var(--bone);
  font: inherit;
  cursor: pointer;
  text-align: left;
  &[data-hovered] {
    background: var(--raised);
  }
  &[data-disabled] {
    color: var(--quiet);
    border-color: var(--line);
  }
`;
export const Sheet = styled(Popover)`
  background: var(--raised);
  border: 1px solid var(--edge);
  border-radius: 2px;
  outline: none;
  max-height: 420px;
  overflow: auto;
`;
export const List = styled(ListBox)`
  outline: none;
  padding: 4px;
  min-width: 160px;
`;
export const Item = styled(ListBoxItem)`
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
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
    outline-offset: -2px;
  }
  &[data-selected] {
    background: var(--bone);
    color: var(--on-bone);
  }
`;

export interface ChoiceOption {
  id: Key;
  text: string;
}
interface Props {
  label: string;
  options: ChoiceOption[];
  value: Key | null;
  onChange: (value: Key) => void;
  hideLabel?: boolean;
  row?: boolean;
  placeholder?: string;
  isDisabled?: boolean;
}

/** One of some values. */
export function Choice({ label, options, value, onChange, hideLabel, row, placeholder, isDisabled }: Props) {
  return (
    <Frame
      {...(hideLabel ? { "aria-label": label } : {})}
      data-variant={row ? "row" : "stack"}
      selectedKey={value}
      onSelectionChange={(key) => key !== null && onChange(key)}
      placeholder={placeholder}
      isDisabled={isDisabled}
    >
      {!hideLabel && <Label>{label}</Label>}
      <Opener>
        <SelectValue />
        <ChevronDown size={14} aria-hidden="true" />
      </Opener>
      <Sheet>
        <List items={options}>
          {(option) => (
            <Item id={(option as ChoiceOption).id} textValue={(option as ChoiceOption).text}>
              {(option as ChoiceOption).text}
            </Item>
          )}
        </List>
      </Sheet>
    </Frame>
  );
}
