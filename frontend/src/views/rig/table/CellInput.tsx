import { useEffect, useRef } from "react";
import styled from "styled-components";

import type { Cell } from "./useGridKeys";

const Field = styled.input`
  position: absolute;
  inset: 0;
  width: 100%;
  min-width: 120px;
  border: 0;
  padding: 0 8px;
  background: var(--raised);
  color: var(--bone);
  font: inherit;
  outline: 2px solid var(--focus);
  z-index: 3;
`;
const Hint = styled.div`
  position: absolute;
  top: 100%;
  left: 0;
  z-index: 3;
  padding: 4px 8px;
  background: var(--raised);
  color: var(--bone);
  border: 1px solid var(--edge);
  font-family: var(--words);
  line-height: 1.4;
`;

interface Props {
  label: string;
  begin: string;
  /** How many rows it will change. */
  many: number;
  suggestions?: string;
  /** text: null where it was left as it is; next: where the cell with the focus goes. */
  onDone: (text: string | null, next?: Partial<Cell>) => void;
}

/** A cell that is being typed into. Enter and Tab keep, Esc leaves it as it was. */
export function CellInput({ label, begin, many, suggestions, onDone }: Props) {
  const field = useRef<HTMLInputElement>(null);
  const over = useRef(false);
  useEffect(() => {
    field.current?.focus();
    if (begin.length > 1) field.current?.select();
  }, [begin]);
  function done(keep: boolean, next?: Partial<Cell>) {
    if (over.current) return;
    over.current = true;
    onDone(keep ? field.current!.value : null, next);
  }
  return (
    <>
      <Field
        ref={field}
        aria-label={label}
        defaultValue={begin}
        list={suggestions}
        onBlur={() => done(true)}
        onPointerDown={(event) => event.stopPropagation()}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Escape") done(false);
          if (event.key === "Enter") done(true, { row: event.shiftKey ? -1 : 1 });
          if (event.key === "Tab") {
            event.preventDefault();
            done(true, { column: event.shiftKey ? -1 : 1 });
          }
        }}
      />
      {many > 1 && <Hint>{many} rows. “−6 to 6” goes evenly; numbers and addresses count on.</Hint>}
    </>
  );
}
