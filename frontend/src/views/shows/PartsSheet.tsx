import { useMemo, useState } from "react";
import styled from "styled-components";

import { showEdits, useParts, type PartsReport, type ShowEntry, type ShowPart } from "../../api/shows";
import { Button } from "../../ui/Button";
import { Scroller } from "../../ui/Scroller";
import { Ending, Sheet } from "../../ui/Sheet";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { byKind } from "./byKind";
import { PartsReportView } from "./PartsReportView";

const List = styled(Scroller)`
  width: min(680px, 80vw);
  height: min(420px, 46vh);
  border-top: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
  h3 {
    font-size: 15px;
    color: var(--quiet);
    font-weight: 650;
    padding: 10px 0 2px;
  }
`;
const Columns = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
`;

interface Props {
  show: ShowEntry;
  /** Name of the open show. */
  into: string;
  onClose: () => void;
}

/** Chooses parts of another show; what would come in is told before it does. */
export function PartsSheet({ show, into, onClose }: Props) {
  const { data: parts } = useParts(show.id);
  const [chosen, setChosen] = useState<ReadonlySet<ShowPart>>(new Set());
  const [sought, setSought] = useState("");
  const [matched, setMatched] = useState(false);
  const [report, setReport] = useState<PartsReport | null>(null);
  const kinds = useMemo(() => byKind(parts ?? [], sought), [parts, sought]);
  const body = (preview: boolean) => ({
    matched,
    chosen: [...chosen].map(({ kind, id }) => ({ kind, id })),
    preview,
  });
  function toggle(part: ShowPart) {
    const next = new Set(chosen);
    if (!next.delete(part)) next.add(part);
    setChosen(next);
  }
  async function bringIn() {
    if (await showEdits.bringIn(show.id, body(false))) onClose();
  }
  const count = `${chosen.size} part${chosen.size === 1 ? "" : "s"}`;
  return (
    <Sheet title={`Parts of ${show.name}, into ${into}`} isOpen onClose={onClose}>
      {report ? (
        <>
          <PartsReportView report={report} into={into} />
          <Ending>
            <Button onPress={() => setReport(null)}>Choose again</Button>
            <Button onPress={() => void bringIn()}>Bring them in</Button>
          </Ending>
        </>
      ) : (
        <>
          <TextField label="Search" value={sought} onChange={setSought} autoFocus />
          <List>
            {kinds.map(([what, of]) => (
              <section key={what} aria-label={what}>
                <h3>{what}</h3>
                <Columns>
                  {of.map((part) => (
                    <Tick key={part.id} isSelected={chosen.has(part)} onChange={() => toggle(part)}>
                      {part.name}
                    </Tick>
                  ))}
                </Columns>
              </section>
            ))}
            {parts && kinds.length === 0 && <p>Nothing is called that.</p>}
          </List>
          <Tick isSelected={matched} onChange={setMatched}>
            Groups of {into} take over from its lights, from the middle; else lights are the same by number
          </Tick>
          <Ending>
            <Button onPress={onClose}>Cancel</Button>
            <Button
              isDisabled={!chosen.size}
              onPress={() => void showEdits.seeParts(show.id, body(true)).then(setReport)}
            >
              {chosen.size ? `See what ${count} would bring` : "Choose some"}
            </Button>
          </Ending>
        </>
      )}
    </Sheet>
  );
}
