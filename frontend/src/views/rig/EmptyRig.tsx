import styled from "styled-components";

import { api, take } from "../../api/client";
import { useEdit } from "../../api/queries";
import { Button } from "../../ui/Button";

const Frame = styled.section`
  display: grid;
  place-content: center;
  gap: 16px;
  height: 100%;
  max-width: 720px;
  margin: 0 auto;
  div {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
  }
`;
const READY = [
  { id: "pars", text: "8 pars" },
  { id: "club", text: "A club: 12 movers and 8 bars" },
  { id: "stage", text: "A stage: spots, washes, beams and a wall" },
] as const;

/** What to do first in a show without lights. */
export function EmptyRig({ onAdd, onFile }: { onAdd: () => void; onFile: () => void }) {
  const begin = useEdit((rig: (typeof READY)[number]["id"]) =>
    take(api.POST("/api/rig/ready", { body: { rig } })),
  );
  return (
    <Frame aria-label="An empty rig">
      <h2>There are no lights yet.</h2>
      <p>
        Add the lights that you have: their kind, how many, and where they listen. Or begin with a small ready
        rig.
      </p>
      <div>
        <Button onPress={onAdd}>Add lights</Button>
        <Button onPress={onFile}>Take in a CSV or MVR file …</Button>
        {READY.map((one) => (
          <Button key={one.id} onPress={() => begin.mutate(one.id)}>
            {one.text}
          </Button>
        ))}
      </div>
    </Frame>
  );
}
