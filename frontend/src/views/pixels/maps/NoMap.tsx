import { useState } from "react";
import styled from "styled-components";

import { Button } from "../../../ui/Button";
import { NewMapSheet } from "./NewMapSheet";

const Frame = styled.section`
  padding: 32px;
  display: grid;
  gap: 12px;
  justify-items: start;
  max-width: 46em;
`;

/** What to do where there is no pixel map yet. */
export function NoMap({ onMade }: { onMade: (map: number) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <Frame>
      <h2>All cells as one picture</h2>
      <p>
        Select the cells of a wall, some battens, or any lights, and make a pixel map of them: then rings,
        flames, letters, pictures and films run over all of them at once.
      </p>
      <Button onPress={() => setOpen(true)}>Make a pixel map</Button>
      <NewMapSheet isOpen={open} onClose={() => setOpen(false)} onMade={onMade} />
    </Frame>
  );
}
