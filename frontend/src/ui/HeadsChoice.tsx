import { useShow } from "../api/queries";
import { useDesk } from "../state";
import { Choice } from "./Choice";

export interface OnHeads {
  heads: string[];
  group_id: number | null;
}
interface Props {
  label: string;
  value: OnHeads;
  onChange: (value: OnHeads) => void;
}
const SELECTED = 0;
const KEPT = -1;
const words = (count: number) => `${count} light${count === 1 ? "" : "s"}`;

/** Some lights: those that are selected, or those of a group, now and later. */
export function HeadsChoice({ label, value, onChange }: Props) {
  const { data: groups = [] } = useShow((show) => show.groups);
  const selection = useDesk((state) => state.selection);
  const isSelected = value.heads.length > 0 && value.heads.join() === selection.join();
  const chosen = value.group_id ?? (isSelected ? SELECTED : value.heads.length ? KEPT : null);
  return (
    <Choice
      label={label}
      placeholder="choose a group"
      value={chosen}
      options={[
        ...(chosen === KEPT ? [{ id: KEPT, text: `${words(value.heads.length)}, as they are` }] : []),
        ...(selection.length ? [{ id: SELECTED, text: `${words(selection.length)}, as selected` }] : []),
        ...groups.map((one) => ({
          id: one.id,
          text: `${one.name}, now and later${one.heads.length ? "" : ": empty, waits for lights"}`,
        })),
      ]}
      onChange={(id) => {
        if (id === SELECTED) onChange({ heads: selection, group_id: null });
        else if (id !== KEPT) onChange({ heads: [], group_id: Number(id) });
      }}
    />
  );
}
