import type { Schemas } from "../../../api/client";
import { Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";

const FIXED = ["first", "last", "middle", "both ends"].map((id) => ({ id, text: id }));
const EASES = [
  { id: "linear", text: "even" },
  { id: "smooth", text: "smooth" },
  { id: "slow-start", text: "slow start" },
  { id: "slow-end", text: "slow end" },
];

interface Props {
  rule: Schemas["FanView"];
  onChange: (change: Omit<Schemas["ChangeFan"], "preview">) => void;
}

/** The rule of a fan: what stays, how it goes from there, and in how many parts. */
export function FanRule({ rule, onChange }: Props) {
  const { fixed, ease, parts, mirror, words } = rule;
  return (
    <>
      <Choice
        label="stays"
        row
        options={FIXED}
        value={fixed}
        onChange={(to) => onChange({ fixed: String(to) })}
      />
      <Choice
        label="goes"
        row
        options={EASES}
        value={ease}
        onChange={(to) => onChange({ ease: String(to) })}
      />
      <NumberField
        label="parts"
        row
        minValue={1}
        maxValue={64}
        value={parts}
        onChange={(to) => Number.isFinite(to) && to !== parts && onChange({ parts: to })}
      />
      <Toggle isSelected={mirror} onChange={(on) => onChange({ mirror: on })} isDisabled={parts < 2}>
        Mirrored
      </Toggle>
      <span>{words}</span>
    </>
  );
}
