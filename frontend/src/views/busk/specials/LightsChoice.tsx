import { useShow } from "../../../api/queries";
import { useDesk } from "../../../state";
import { Choice } from "../../../ui/Choice";

const SELECTED = "selected";
const KEPT = "kept";

interface Props {
  heads: string[];
  onChange: (heads: string[]) => void;
}

const words = (count: number) => (count === 1 ? "1 light" : `${count} lights`);

/** Which lights: those that are selected on the stage, or a group. */
export function LightsChoice({ heads, onChange }: Props) {
  const { data: groups = [] } = useShow((show) => show.groups);
  const selection = useDesk((state) => state.selection);
  const same = (keys: string[]) => keys.length === heads.length && keys.every((key, n) => key === heads[n]);
  const group = groups.find((one) => same(one.heads));
  const chosen = same(selection) && selection.length ? SELECTED : group ? String(group.id) : KEPT;
  const named = heads.slice(0, 4).join(", ") + (heads.length > 4 ? " …" : "");
  return (
    <Choice
      label="Lights"
      options={[
        ...(chosen === KEPT ? [{ id: KEPT, text: heads.length ? named : "none yet: select some" }] : []),
        ...(selection.length
          ? [{ id: SELECTED, text: `${words(selection.length)}, as selected on the stage` }]
          : []),
        ...groups.filter((one) => one.heads.length).map((one) => ({ id: String(one.id), text: one.name })),
      ]}
      value={chosen}
      onChange={(id) => {
        if (id === SELECTED) onChange(selection);
        else if (id !== KEPT) onChange(groups.find((one) => String(one.id) === id)?.heads ?? heads);
      }}
    />
  );
}
