import { Item, List } from "../../../../ui/Choice";
import type { SlotProps } from "./Slot";

/** One of some words. */
export function ChoiceSlot({ part, editor, close }: SlotProps) {
  const options = part.options ?? [];
  const keyOf = (value: unknown) => JSON.stringify(value);
  return (
    <List
      aria-label={part.label ?? "Value"}
      autoFocus="first"
      selectionMode="single"
      selectedKeys={[keyOf(part.value)]}
      onSelectionChange={(keys) => {
        const [key] = keys as Set<string>;
        if (key !== undefined)
          void editor.commit({ operation: "set", path: part.slot!, value: JSON.parse(key) });
        close();
      }}
    >
      {options.map((option) => (
        <Item key={keyOf(option.value)} id={keyOf(option.value)} textValue={option.text}>
          {option.text}
        </Item>
      ))}
    </List>
  );
}
