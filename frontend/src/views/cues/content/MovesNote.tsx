import styled from "styled-components";

import type { CueContent } from "../../../api/cues";
import { seconds } from "../cues";

const Note = styled.p`
  border: 1px dashed var(--edge);
  padding: 8px 12px;
  margin-top: 14px;
  font-size: 14px;
`;
const lights = (count: number) => `${count} ${count === 1 ? "head" : "heads"}`;

/** Lights that move for a cue: in the dark before it, or in view, and which cue would hide that. */
export function MovesNote({ cue }: { cue: CueContent }) {
  const { dark, seconds: time, seen, hidden_by } = cue.moves;
  return (
    <>
      {dark > 0 && (
        <Note>
          Before this cue {lights(dark)} {dark === 1 ? "is" : "are"} prepared in the dark, in {seconds(time)}{" "}
          s.
        </Note>
      )}
      {seen > 0 && (
        <Note>
          {lights(seen)} {seen === 1 ? "moves" : "move"} in view here.{" "}
          {hidden_by === null
            ? "No cue before has them dark."
            : `In cue ${hidden_by} they are dark: their new position there would be taken unseen.`}
        </Note>
      )}
    </>
  );
}
