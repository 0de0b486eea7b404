import { Plus } from "lucide-react";

import { api, take } from "../../../api/client";
import { useEdit } from "../../../api/queries";
import { desk, useDesk } from "../../../state";
import { ActionMenu } from "../../../ui/ActionMenu";

interface Move {
  id: string;
  text: string;
  spread?: "relay";
}
/** What an effect can move. */
export const MOVES: Move[] = [
  { id: "intensity", text: "Intensity" },
  { id: "intensity in turns", text: "Intensity, one after another", spread: "relay" },
  { id: "position", text: "Position, as a path" },
  { id: "pan", text: "Pan" },
  { id: "tilt", text: "Tilt" },
  { id: "colour", text: "Colour, through stops" },
  { id: "hue", text: "Hue" },
  { id: "saturation", text: "Saturation" },
  { id: "zoom", text: "Zoom" },
  { id: "iris", text: "Iris" },
  { id: "frost", text: "Frost" },
  { id: "strobe", text: "Strobe" },
  { id: "temperature", text: "Colour temperature" },
  { id: "white_mix", text: "White mix" },
];

/** Attributes in a menu. */
export function MoveMenu({
  label,
  onChoose,
  moves = MOVES.filter((one) => !one.spread),
}: {
  label: string;
  onChoose: (id: string) => void;
  moves?: Move[];
}) {
  const opener = (
    <>
      <Plus size={16} aria-hidden="true" /> {label}
    </>
  );
  return <ActionMenu label={label} opener={opener} variant="full" actions={moves} onAction={onChoose} />;
}

/** Starts an effect on the selection: it runs at once, in the draft. */
export function useNewEffect(): (attribute: string) => void {
  const selection = useDesk((state) => state.selection);
  const add = useEdit(async (id: string) => {
    const spread = MOVES.find((one) => one.id === id)?.spread ?? "ripple";
    const attribute = id.split(" ")[0]!;
    const made = await take(api.POST("/api/effects", { body: { attribute, spread, heads: selection } }));
    desk.open(made.effect.id, made.draft_id ? `draft:${made.draft_id}` : null);
  });
  return add.mutate;
}

/** Start an effect from a menu of what it can move. */
export function NewEffect() {
  const add = useNewEffect();
  return (
    <div>
      <MoveMenu label="New effect" onChoose={add} moves={MOVES} />
    </div>
  );
}
