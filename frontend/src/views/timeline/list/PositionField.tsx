import { useState } from "react";
import styled from "styled-components";

import { TextField } from "../../../ui/TextField";
import { positionText, readPosition } from "../scale";

const Narrow = styled.div`
  input {
    width: 104px;
    font: 15px var(--numbers);
  }
`;

interface Props {
  label: string;
  value: number;
  rate: string;
  onChange: (p: number) => void;
}

/** A position in minutes, seconds and frames, taken with Enter or when it is left. */
export function PositionField({ label, value, rate, onChange }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const shown = positionText(value, rate);
  const read = typed === null ? value : readPosition(typed, rate);
  const done = () => {
    if (typed !== null && read !== null && typed !== shown) onChange(read);
    setTyped(null);
  };
  return (
    <Narrow>
      <TextField
        label={label}
        value={typed ?? shown}
        onChange={setTyped}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key === "Enter") done();
          if (event.key === "Escape") setTyped(null);
        }}
        {...(read === null ? { problem: "Minutes, seconds and frames, as 1:04.18." } : {})}
      />
    </Narrow>
  );
}
