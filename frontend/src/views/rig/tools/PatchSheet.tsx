import { useEffect, useState } from "react";
import styled from "styled-components";

import { rigEdits, type PatchLook } from "../../../api/rigEdits";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Scroller } from "../../../ui/Scroller";
import { Ending, Sheet } from "../../../ui/Sheet";

const Columns = styled.div`
  width: min(920px, 88vw);
  overflow-x: auto;
  table {
    border-collapse: collapse;
  }
  th,
  td {
    padding: 4px 14px 4px 0;
    text-align: left;
    font-weight: 400;
    white-space: nowrap;
    max-width: 180px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  td {
    border-top: 1px solid var(--line);
    color: var(--quiet);
  }
`;
const Told = styled(Scroller)`
  width: min(920px, 88vw);
  max-height: 30vh;
  h3 {
    font-size: 15px;
    font-weight: 650;
    padding: 8px 0 2px;
  }
  p {
    color: var(--quiet);
  }
`;
const NONE = "left out";
const MOST = 200;
const fixtures = (count: number) => `${count.toLocaleString("en")} fixture${count === 1 ? "" : "s"}`;

/** A patch from a CSV file: which column is which, and what it would change, before it does. */
export function PatchSheet({ file, onClose }: { file: File; onClose: () => void }) {
  const [look, setLook] = useState<PatchLook | null>(null);
  const [columns, setColumns] = useState<string[] | null>(null);
  useEffect(() => {
    let here = true;
    void rigEdits.patch(file, columns, true).then((answer) => {
      if (!here) return;
      if (answer) setLook(answer);
      else onClose();
    });
    return () => {
      here = false;
    };
  }, [file, columns, onClose]);
  if (!look) return null;
  const options = [{ id: NONE, text: NONE }, ...look.known.map((one) => ({ id: one.id, text: one.title }))];
  const choose = (n: number, key: string) =>
    setColumns(look.columns.map((one, k) => (k === n ? (key === NONE ? "" : key) : one)));
  /** What was chosen last is not seen yet. */
  const waits = columns?.some((one, k) => one !== look.columns[k]) ?? false;
  const nothing = !look.changes.length && !look.added.length;
  return (
    <Sheet title={`Patch from ${file.name}`} isOpen onClose={onClose}>
      <Columns>
        <table>
          <thead>
            <tr>
              {look.titles.map((title, n) => (
                <th key={n}>
                  {title || "no title"}
                  <Choice
                    label={`Column ${title || n + 1} is`}
                    hideLabel
                    value={look.columns[n] || NONE}
                    options={options}
                    onChange={(key) => choose(n, String(key))}
                  />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {look.sample.map((row, n) => (
              <tr key={n}>
                {look.titles.map((_, k) => (
                  <td key={k}>{row[k]}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Columns>
      <Told aria-live="polite">
        {look.faults.length > 0 && <h3>Nothing can be taken in yet</h3>}
        {look.faults.map((one) => (
          <div key={one}>{one}</div>
        ))}
        {look.added.length > 0 && <h3>{fixtures(look.added.length)} new</h3>}
        {look.added.slice(0, MOST).map((one) => (
          <div key={one}>{one}</div>
        ))}
        {look.changes.length > 0 && <h3>{fixtures(look.changes.length)} changed</h3>}
        {look.changes.slice(0, MOST).map((one) => (
          <div key={one}>{one}</div>
        ))}
        {look.lost?.map((one) => (
          <strong key={one}>{one}</strong>
        ))}
        {look.same > 0 && <p>{fixtures(look.same)} as they are already.</p>}
        {look.absent.length > 0 && (
          <p>{fixtures(look.absent.length)} of the show are not in the file: they stay as they are.</p>
        )}
      </Told>
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button
          isDisabled={nothing || waits || look.faults.length > 0}
          onPress={() => void rigEdits.patch(file, look.columns, false).then((done) => done && onClose())}
        >
          Take it in
        </Button>
      </Ending>
    </Sheet>
  );
}
