import { useState } from "react";
import styled from "styled-components";

import { TextField } from "../../../ui/TextField";

const Box = styled.div`
  input[type="text"] {
    font: 14px var(--numbers);
    min-height: 30px;
    width: 84px;
    padding: 0 6px;
  }
`;

interface Props {
  hex: string;
  onPick: (hex: string) => void;
}

/** A colour as #rrggbb. */
export function HexField({ hex, onPick }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  function enter() {
    if (typed !== null && typed.trim() && typed.trim() !== hex) onPick(typed.trim());
    setTyped(null);
  }
  return (
    <Box>
      <TextField
        label="Colour as #rrggbb"
        hideLabel
        value={typed ?? hex}
        onChange={setTyped}
        onBlur={enter}
        onKeyDown={(event) => {
          if (event.key === "Enter") enter();
          else if (event.key === "Escape") setTyped(null);
        }}
      />
    </Box>
  );
}
