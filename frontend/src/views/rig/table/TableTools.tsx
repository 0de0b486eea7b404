import { Columns3 } from "lucide-react";
import { CheckboxGroup, Dialog, DialogTrigger } from "react-aria-components";
import styled from "styled-components";

import { Button } from "../../../ui/Button";
import { Bubble } from "../../../ui/Sheet";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";
import { COLUMNS } from "./columns";

const Filter = styled.div`
  flex: 1 1 110px;
  min-width: 90px;
  max-width: 168px;
  input {
    min-height: 32px;
    font-size: 14px;
  }
`;

interface Props {
  words: string;
  onWords: (words: string) => void;
  hidden: ReadonlySet<string>;
  onHidden: (hidden: ReadonlySet<string>) => void;
  count: number;
}

/** Which rows and columns are shown. */
export function TableTools({ words, onWords, hidden, onHidden, count }: Props) {
  const shown = COLUMNS.filter((column) => !hidden.has(column.id)).map((column) => column.id);
  return (
    <>
      <Filter>
        <TextField
          label="Filter rows"
          hideLabel
          placeholder="Filter by words"
          value={words}
          onChange={onWords}
        />
      </Filter>
      {words && <span aria-live="polite">{count} shown</span>}
      <DialogTrigger>
        <Button data-variant="small" aria-label="Columns">
          <Columns3 size={16} aria-hidden="true" />
        </Button>
        <Bubble>
          <Dialog aria-label="Columns">
            <CheckboxGroup
              aria-label="Columns"
              value={shown}
              onChange={(now) =>
                onHidden(
                  new Set(
                    COLUMNS.map((column) => column.id).filter((id) => id !== "number" && !now.includes(id)),
                  ),
                )
              }
            >
              {COLUMNS.map((column) => (
                <Tick key={column.id} value={column.id} isDisabled={column.id === "number"}>
                  {column.title}
                </Tick>
              ))}
            </CheckboxGroup>
          </Dialog>
        </Bubble>
      </DialogTrigger>
    </>
  );
}
