import styled from "styled-components";

import { showEdits, useCopyLook, type Copy } from "../../api/shows";
import { useJob } from "../../api/useJob";
import { Button } from "../../ui/Button";
import { Progress } from "../../ui/Progress";
import { Ending, Sheet } from "../../ui/Sheet";
import { when } from "./when";

const Table = styled.table`
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  th,
  td {
    padding: 6px 0 6px 32px;
    text-align: right;
    border-top: 1px solid var(--line);
    font-weight: 400;
  }
  th:first-child {
    text-align: left;
    padding-left: 0;
  }
  thead th {
    color: var(--quiet);
    border: none;
  }
  tr[data-differs] td,
  tr[data-differs] th {
    font-weight: 650;
  }
`;

interface Props {
  copy: Copy;
  onClose: () => void;
}

/** What is in a copy beside what the show has now; and taking it back. */
export function CopySheet({ copy, onClose }: Props) {
  const { data: look } = useCopyLook(copy.file);
  const job = useJob();
  if (!look) return null;
  return (
    <Sheet title={`As it was ${when(copy.at, new Date())}`} isOpen onClose={onClose}>
      <Table>
        <thead>
          <tr>
            <th>{look.name}</th>
            <th>then</th>
            <th>now</th>
          </tr>
        </thead>
        <tbody>
          {look.counts.map((one) => (
            <tr key={one.what} data-differs={one.now !== one.then || undefined}>
              <th scope="row">{one.what}</th>
              <td>{one.then.toLocaleString("en")}</td>
              <td>{one.now.toLocaleString("en")}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {look.missing > 0 && (
        <p>{look.missing} of its sounds, pictures and films are not in the folder any more.</p>
      )}
      <p style={{ maxWidth: "32em" }}>
        Taking it back makes a copy of what is there now first. What plays goes on, with what it is then. Undo
        begins anew.
      </p>
      {job.share !== null && <Progress label="Taking it back" share={job.share} onStop={job.stop} />}
      <Ending>
        <Button onPress={onClose}>Leave it</Button>
        <Button
          isDisabled={job.share !== null}
          onPress={() => void job.run((headers) => showEdits.takeBackCopy(copy.file, headers)).then(onClose)}
        >
          Take it back
        </Button>
      </Ending>
    </Sheet>
  );
}
