import { useState } from "react";

import type { Rig } from "../../../api/rig";
import { act } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { rigEdits } from "../../../api/rigEdits";
import { AddressDialog, type Asked } from "./AddressDialog";
import { show } from "./showing";

const CELL_ORDERS: [string, string][] = [
  ["", "As it was made"],
  ["rows from top left", "Rows from the top left"],
  ["rows from top right", "Rows from the top right"],
  ["rows from bottom left", "Rows from the bottom left"],
  ["rows from top left, back and forth", "Rows from the top left, back and forth"],
  ["columns from top left", "Columns from the top left"],
  ["columns from bottom left, back and forth", "Columns from the bottom left, back and forth"],
];

interface Props {
  rig: Rig;
  numbers: number[];
  onDelete: () => void;
  onKind: (name: string) => void;
  onTakeOver: () => void;
  /** Choose a file with a rig. */
  onFile: () => void;
}

/** What can be done with the chosen fixtures: addresses, copies, cells. */
export function FixtureMenus({ rig, numbers, onDelete, onKind, onTakeOver, onFile }: Props) {
  const [asked, setAsked] = useState<Asked | null>(null);
  const { fixtures } = rig;
  const chosen = new Set(numbers);
  const own = fixtures.filter((one) => chosen.has(one.number));
  const withCells = own.filter((one) => (rig.modes.get(one.mode_id)?.cells ?? 0) > 0);
  const none = !numbers.length;
  const kinds = new Set(own.map((one) => one.mode_id));
  const first = 1 + Math.max(0, ...fixtures.map((one) => one.number));
  function order(name: string) {
    const changes = withCells.map(({ number }) => ({ fixture: number, set: { cell_order: name } }));
    void rigEdits.change(changes as Parameters<typeof rigEdits.change>[0], "Order of cells");
  }
  function flip() {
    const changes = withCells.map(({ number, cell_order }) => ({
      fixture: number,
      set: { cell_order: cell_order === "reversed" ? "" : "reversed" },
    }));
    void rigEdits.change(changes as Parameters<typeof rigEdits.change>[0], "Flip the cells");
  }
  return (
    <>
      <ActionMenu
        label="Addresses"
        opener="Addresses"
        variant="small"
        actions={[
          { id: "next", text: "Next free for the selection", disabled: none },
          { id: "order", text: "Re-address in order from …", disabled: none },
          { id: "none", text: "Take the address away", disabled: none },
          { id: "universe", text: "Move a universe …" },
        ]}
        onAction={(id) => {
          if (id === "next") void rigEdits.address({ numbers, how: "next free", universe: 1, address: 1 });
          if (id === "none") void rigEdits.address({ numbers, how: "none", universe: 1, address: 1 });
          if (id === "order" || id === "universe") setAsked(id);
        }}
      />
      <ActionMenu
        label="Fixtures"
        opener="Fixtures"
        variant="small"
        actions={[
          { id: "copy", text: `Duplicate from ${first} on`, disabled: none },
          { id: "mirror", text: `Duplicate mirrored from ${first} on`, disabled: none },
          { id: "kind", text: "Open their kind", disabled: kinds.size !== 1 },
          { id: "delete", text: "Delete …", disabled: none },
          {
            id: "stand",
            text:
              numbers.length === 2
                ? `${numbers[1]} stands in for ${numbers[0]}`
                : "Stand in: choose two, the broken one first",
            disabled: numbers.length !== 2,
          },
          { id: "over", text: "Take over to other lights …", disabled: !fixtures.length },
          { id: "in", text: "Take in a CSV or MVR file …" },
          { id: "out", text: "Save all as CSV", disabled: !fixtures.length },
          { id: "scene", text: "Save all as MVR", disabled: !fixtures.length },
        ]}
        onAction={(id) => {
          if (id === "copy" || id === "mirror") void rigEdits.duplicate(numbers, first, id === "mirror");
          else if (id === "kind") onKind(rig.modes.get(own[0]!.mode_id)!.name);
          else if (id === "stand") act({ do: "stand-in", light: numbers[0]!, by: numbers[1]! });
          else if (id === "over") onTakeOver();
          else if (id === "in") onFile();
          else if (id === "out") window.location.assign("/api/rig/patch.csv");
          else if (id === "scene") window.location.assign("/api/rig/scene.mvr");
          else onDelete();
        }}
      />
      <ActionMenu
        label="Cells"
        opener="Cells"
        variant="small"
        actions={[
          { id: "flip", text: "Flip: count from the other end", disabled: !withCells.length },
          { id: "show", text: "Show me cell 1", disabled: !withCells.length },
          ...CELL_ORDERS.map(([id, text]) => ({ id: `order ${id}`, text, disabled: !withCells.length })),
        ]}
        onAction={(id) => {
          if (id === "flip") flip();
          else if (id === "show") show([withCells.map(({ number }) => `${number}.1`)]);
          else order(id.slice("order ".length));
        }}
      />
      {asked && <AddressDialog asked={asked} numbers={numbers} onClose={() => setAsked(null)} />}
    </>
  );
}
