import { useState } from "react";
import { DialogTrigger, Button as AriaButton, Dialog } from "react-aria-components";
import styled from "styled-components";

import { useBuskTold, type BuskRow } from "../../../api/busk";
import { act } from "../../../live/socket";
import { Fader } from "../../../ui/Fader";
import { Bubble } from "../../../ui/Sheet";
import { SmallToggle } from "../../../ui/SmallToggle";
import { Group } from "./Group";

const Colours = styled.div`
  display: grid;
  grid-template-columns: 44px 44px minmax(0, 1fr);
  gap: 3px;
  height: 40px;
`;
const Swatch = styled(AriaButton)`
  border: 1px solid var(--edge);
  padding: 0;
  cursor: pointer;
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
`;
const Choices = styled(Dialog)`
  display: grid;
  grid-template-columns: repeat(4, 48px);
  grid-auto-rows: 44px;
  gap: 3px;
  outline: none;
`;
const Rows = styled.div`
  display: grid;
  grid-template-columns: repeat(var(--columns), minmax(0, 1fr));
  grid-auto-rows: 40px;
  gap: 3px;
`;

interface PickProps {
  which: "a" | "b";
  colour: string;
  pads: BuskRow["colour"];
}

/** One of the two colours; it opens the colours of the page to pick another. */
function Pick({ which, colour, pads }: PickProps) {
  const [open, setOpen] = useState(false);
  const label = which === "a" ? "First colour" : "Second colour";
  return (
    <DialogTrigger isOpen={open} onOpenChange={setOpen}>
      <Swatch aria-label={`${label}, ${colour}`} style={{ background: colour }} />
      <Bubble placement="bottom end">
        <Choices aria-label={label}>
          {pads.map((pad) => (
            <Swatch
              key={pad.id}
              aria-label={pad.name}
              style={{ background: pad.colours[0] }}
              onPress={() => {
                act({ do: "two-colours", [which]: pad.colours[0]! });
                setOpen(false);
              }}
            />
          ))}
        </Choices>
      </Bubble>
    </DialogTrigger>
  );
}

/** Two colours that go to and fro over rows, over the colours that are there. */
export function TwoColours({ rows }: { rows: BuskRow[] }) {
  const two = useBuskTold((told) => told.two);
  const pads = rows.find((row) => row.kind === "all")?.colour.filter((pad) => pad.colours.length) ?? [];
  const able = rows.filter((row) => row.kind === "lights" && row.can.includes("colour"));
  if (!two) return null;
  const turn = (id: number, on: boolean) =>
    act({ do: "two-colours", rows: on ? [...two.rows, id] : two.rows.filter((one) => one !== id) });
  return (
    <Group title="Two colours to and fro, mix, on rows">
      <Colours>
        <Pick which="a" colour={two.a} pads={pads} />
        <Pick which="b" colour={two.b} pads={pads} />
        <Fader
          label="Mix of the two colours"
          value={Math.round(two.mix * 100)}
          words={(value) => `${value} %`}
          onMove={(value) => act({ do: "two-colours", mix: value / 100 })}
        />
      </Colours>
      <Rows
        role="group"
        aria-label="Rows of the two colours"
        style={{ "--columns": able.length > 8 ? 5 : 4 } as React.CSSProperties}
      >
        {able.map((row) => (
          <SmallToggle
            key={row.id}
            isSelected={two.rows.includes(row.id)}
            onChange={(on) => turn(row.id, on)}
          >
            {row.name}
          </SmallToggle>
        ))}
      </Rows>
    </Group>
  );
}
