import styled from "styled-components";

import { Button } from "../ui/Button";
import { Ending, Sheet } from "../ui/Sheet";
import { SHORTCUTS } from "./shortcuts";

const Keys = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 24px;
  margin: 0;
  dt {
    font-family: var(--numbers);
  }
  dd {
    margin: 0;
  }
`;

/** The shortcuts, by `?`. */
export function ShortcutSheet({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Sheet title="Shortcuts" isOpen={isOpen} onClose={onClose}>
      <Keys>
        {SHORTCUTS.map(({ keys, does }) => (
          <div key={keys} style={{ display: "contents" }}>
            <dt>{keys}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </Keys>
      <Ending>
        <Button onPress={onClose}>Close</Button>
      </Ending>
    </Sheet>
  );
}
