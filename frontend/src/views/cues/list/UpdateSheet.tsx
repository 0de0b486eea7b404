import { Fragment, useState } from "react";
import styled from "styled-components";

import { useCueEdits, useUpdates } from "../../../api/cues";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Ending, Sheet } from "../../../ui/Sheet";
import { Tick } from "../../../ui/Tick";

const Rows = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px 20px;
  align-items: center;
  width: 600px;
  p {
    color: var(--quiet);
    grid-column: 1 / 3;
  }
  small {
    color: var(--quiet);
    display: block;
  }
`;
const NOWHERE = "nowhere";

/** What was changed by hand on stage, put into the cues that it came from, into the cue that is on, or nowhere. */
export function UpdateSheet({ onClose }: { onClose: () => void }) {
  const { data } = useUpdates();
  const edits = useCueEdits();
  const [into, setInto] = useState<Record<number, string>>({});
  const [clear, setClear] = useState(true);
  const choices = (data?.found ?? [])
    .map((one) => ({ cue_id: one.cue_id, into: into[one.cue_id] ?? String(one.cue_id) }))
    .filter((one) => one.into !== NOWHERE)
    .map((one) => ({ cue_id: one.cue_id, into: Number(one.into) }));
  async function update() {
    if (await edits.update({ choices, clear })) onClose();
  }
  return (
    <Sheet title="Update cues from the stage" isOpen onClose={onClose}>
      <Rows>
        {data?.found.map((one) => (
          <Fragment key={`${one.list_id} ${one.cue_id}`}>
            <span>
              {one.values} {one.values === 1 ? "value" : "values"} from {one.list_name}, cue {one.number}{" "}
              {one.name}
              <small>{one.labels.join(", ")}</small>
            </span>
            <Choice
              label={`Where: from cue ${one.number}`}
              hideLabel
              value={into[one.cue_id] ?? String(one.cue_id)}
              options={[
                { id: String(one.cue_id), text: `into cue ${one.number}, where it comes from` },
                ...(one.here_id !== one.cue_id
                  ? [{ id: String(one.here_id), text: `into cue ${one.here}, which is on` }]
                  : []),
                { id: NOWHERE, text: "nowhere" },
              ]}
              onChange={(key) => setInto((now) => ({ ...now, [one.cue_id]: String(key) }))}
            />
          </Fragment>
        ))}
        {data?.found.length === 0 && (
          <p>
            Nothing to update. Change values by hand (in Look) while a cue list is on: each goes back to the
            cue that it comes from.
          </p>
        )}
        {!!data?.loose && (
          <p>
            {data.loose} {data.loose === 1 ? "value comes" : "values come"} from no cue; record them into one.
          </p>
        )}
        {!!data?.found.length && (
          <Tick isSelected={clear} onChange={setClear}>
            Take out of the draft what is updated
          </Tick>
        )}
      </Rows>
      <Ending>
        <Button onPress={onClose}>Cancel</Button>
        <Button isDisabled={!choices.length} onPress={() => void update()}>
          Update
        </Button>
      </Ending>
    </Sheet>
  );
}
