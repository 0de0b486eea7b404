import styled from "styled-components";

import { useDifferences, type CueContent } from "../../../api/cues";
import { Button } from "../../../ui/Button";
import { Ending, Sheet } from "../../../ui/Sheet";

const Rows = styled.table`
  border-collapse: collapse;
  th,
  td {
    text-align: left;
    padding: 4px 16px 4px 0;
    border-bottom: 1px solid var(--line);
    font-weight: 400;
  }
  thead th {
    color: var(--quiet);
  }
  i {
    display: inline-block;
    width: 30px;
    height: 16px;
    border: 1px solid var(--edge);
    vertical-align: -3px;
  }
`;
interface Props {
  cue: CueContent;
  onStage: boolean;
  onClose: () => void;
}

/** Lights that are otherwise on stage now than a cue has them. */
export function DifferencesSheet({ cue, onStage, onClose }: Props) {
  const { data: lines } = useDifferences(cue.id);
  const value = (words: string, colours: string[]) =>
    colours.length ? colours.map((colour) => <i key={colour} style={{ background: colour }} />) : words;
  return (
    <Sheet title={`Cue ${cue.number} and the stage`} isOpen onClose={onClose}>
      {lines?.length === 0 && (
        <p>{onStage ? "The stage shows just this cue." : "The stage shows what this cue would."}</p>
      )}
      {!!lines?.length && (
        <>
          <p>Without its effects, this is otherwise on stage now:</p>
          <Rows>
            <thead>
              <tr>
                <th>What</th>
                <th>Lights</th>
                <th>On stage</th>
                <th>In the cue</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((line) => (
                <tr key={`${line.attribute} ${line.group}`}>
                  <th>{line.label}</th>
                  <td>
                    {line.group}
                    {line.heads < line.of && `, ${line.heads} of ${line.of}`}
                  </td>
                  <td>{value(line.stage, line.stage_colours)}</td>
                  <td>{value(line.cue, line.cue_colours)}</td>
                </tr>
              ))}
            </tbody>
          </Rows>
        </>
      )}
      <Ending>
        <Button onPress={onClose}>Close</Button>
      </Ending>
    </Sheet>
  );
}
