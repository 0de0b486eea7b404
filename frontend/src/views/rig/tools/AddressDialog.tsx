import { useState } from "react";

import { Button } from "../../../ui/Button";
import { NumberField } from "../../../ui/NumberField";
import { Ending, Sheet } from "../../../ui/Sheet";
import { rigEdits } from "../../../api/rigEdits";

export type Asked = "order" | "universe";

/** From where on addresses go in order; or which universe goes where. */
export function AddressDialog({
  asked,
  numbers,
  onClose,
}: {
  asked: Asked;
  numbers: number[];
  onClose: () => void;
}) {
  const [universe, setUniverse] = useState(1);
  const [to, setTo] = useState(asked === "order" ? 1 : 2);
  const plain = { useGrouping: false };
  async function done() {
    const result =
      asked === "order"
        ? await rigEdits.address({ numbers, how: "in order", universe, address: to })
        : await rigEdits.moveUniverse(universe, to);
    if (result) onClose();
  }
  return (
    <Sheet
      title={asked === "order" ? `Address ${numbers.length} fixtures in order` : "Move a universe"}
      isOpen
      onClose={onClose}
    >
      <NumberField
        label={asked === "order" ? "Universe" : "Universe to move"}
        minValue={1}
        maxValue={63999}
        formatOptions={plain}
        value={universe}
        onChange={setUniverse}
      />
      <NumberField
        label={asked === "order" ? "First address" : "It becomes universe"}
        minValue={1}
        maxValue={asked === "order" ? 512 : 63999}
        formatOptions={plain}
        value={to}
        onChange={setTo}
      />
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button onPress={() => void done()}>{asked === "order" ? "Re-address" : "Move it"}</Button>
      </Ending>
    </Sheet>
  );
}
