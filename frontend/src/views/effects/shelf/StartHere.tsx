import styled from "styled-components";

import { useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { MOVES, useNewEffect } from "./NewEffect";

const Words = styled.section`
  padding: 24px 28px;
  display: grid;
  gap: 14px;
  align-content: start;
  h2 {
    font-size: 22px;
    font-weight: 650;
  }
  p {
    font-size: 17px;
    line-height: 1.5;
    max-width: 34em;
  }
  ol {
    margin: 0;
    padding-left: 1.2em;
    font-size: 17px;
    line-height: 1.7;
  }
`;

const Moves = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

/** What to do first. */
export function StartHere() {
  const add = useNewEffect();
  const chosen = useDesk((state) => state.selection.length);
  return (
    <Words>
      <h2>{chosen ? `${chosen} heads are selected: start an effect on them` : "Start an effect"}</h2>
      <p>
        What moves above are the effects named below, under “Running”. Click one there to open it, or make
        your own:
      </p>
      <ol>
        <li>Select lights: click a group, drag a box over the stage, or type 101-110.</li>
        <li>Choose what shall move. It runs at once, and reads as a sentence.</li>
        <li>Change any underlined word while you watch.</li>
      </ol>
      <Moves role="group" aria-label="Start an effect on">
        {MOVES.slice(0, 9).map((move) => (
          <Button key={move.id} onPress={() => add(move.id)}>
            {move.text}
          </Button>
        ))}
      </Moves>
    </Words>
  );
}
