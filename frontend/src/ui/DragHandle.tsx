import { GripVertical } from "lucide-react";
import { Button } from "react-aria-components";
import styled from "styled-components";

const Grip = styled(Button)`
  all: unset;
  cursor: grab;
  display: inline-flex;
  min-width: 24px;
  min-height: 32px;
  align-items: center;
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
`;

/** What a row of a list is dragged by, also with keys. */
export function DragHandle({ label }: { label: string }) {
  return (
    <Grip slot="drag" aria-label={label}>
      <GripVertical size={16} aria-hidden="true" />
    </Grip>
  );
}
