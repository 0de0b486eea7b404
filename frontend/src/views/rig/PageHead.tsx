import { ChevronLeft } from "lucide-react";
import type { ReactNode } from "react";
import styled from "styled-components";

import { Button } from "../../ui/Button";

const Frame = styled.header`
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 12px;
  border-bottom: 1px solid var(--line);
  h2 {
    font-size: 17px;
    font-weight: 650;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

/** On top of a page within the rig: the way back, what it is about, and what belongs to all of it. */
export function PageHead({
  title,
  onClose,
  children,
}: {
  title: string;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Frame>
      <Button data-variant="small" onPress={onClose}>
        <ChevronLeft size={15} aria-hidden="true" /> Rig
      </Button>
      <h2>{title}</h2>
      {children}
    </Frame>
  );
}
