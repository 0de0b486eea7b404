import { useState } from "react";
import styled from "styled-components";

import { useCueEdits, type CueContent } from "../../../api/cues";
import { Button } from "../../../ui/Button";
import { StepList } from "./StepList";

const Section = styled.section`
  margin-top: 14px;
  > div {
    display: flex;
    align-items: center;
    justify-content: space-between;
    border-bottom: 1px solid var(--line);
  }
  h3 {
    font-size: 14px;
    font-weight: 600;
    color: var(--quiet);
  }
`;
const Endless = styled.p`
  border: 1px dashed var(--edge);
  padding: 8px 12px;
  margin-top: 8px;
  font-size: 14px;
`;

/** What a cue sends, in its order: to outside devices, and to what else there is in the show. */
export function CueMessages({ cue }: { cue: CueContent }) {
  const edits = useCueEdits();
  const [adding, setAdding] = useState(false);
  return (
    <Section aria-label="Messages">
      <div>
        <h3>{cue.messages.length ? "Sends" : "Sends nothing"}</h3>
        <Button data-variant="plain" onPress={() => setAdding(true)}>
          Add a message …
        </Button>
      </div>
      <StepList
        steps={cue.messages.map((one) => ({ message: one.message, words: one.words, at: one.sent }))}
        ownList={cue.list_id}
        adding={adding}
        onAdded={() => setAdding(false)}
        onPut={(messages) => edits.messages(cue.id, messages)}
      />
      {cue.endless && <Endless role="status">{cue.endless}</Endless>}
    </Section>
  );
}
