import { useState } from "react";
import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { Toggle } from "../../ui/Button";
import { LooksShelf } from "./looks/LooksShelf";
import { PaletteShelf } from "./palettes/PaletteShelf";

const Frame = styled.div`
  display: grid;
  grid-template-rows: 34px minmax(0, 1fr);
  gap: 4px;
  min-height: 0;
`;
const Which = styled(ToggleButtonGroup)`
  display: flex;
  button {
    flex: 1;
  }
  button + button {
    margin-left: -1px;
  }
`;

/** What is kept: palettes, and whole looks. */
export function Shelves({ selection }: { selection: string[] }) {
  const [shown, setShown] = useState("palettes");
  return (
    <Frame>
      <Which
        aria-label="What is kept"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[shown]}
        onSelectionChange={([key]) => key !== undefined && setShown(String(key))}
      >
        <Toggle id="palettes" data-variant="small">
          Palettes
        </Toggle>
        <Toggle id="looks" data-variant="small">
          Looks, overlays
        </Toggle>
      </Which>
      {shown === "palettes" ? <PaletteShelf selection={selection} /> : <LooksShelf />}
    </Frame>
  );
}
