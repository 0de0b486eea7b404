import { ChevronLeft, ChevronRight } from "lucide-react";
import { useCallback, useRef, useState, type ReactNode } from "react";
import styled from "styled-components";

import { Button } from "./Button";
import { useRoom } from "./useRoom";

const Frame = styled.div`
  display: flex;
  align-items: center;
  flex: 1 1 0;
  min-width: 0;
  > button {
    padding: 0 2px;
    min-width: 28px;
  }
`;
const Content = styled.div`
  display: flex;
  flex: 1 1 0;
  min-width: 0;
  overflow-x: auto;
  scrollbar-width: none;
  > * {
    flex: none;
  }
`;
const SLACK_PX = 2;

/** A row that scrolls where there is no room for all of it, with a button at each end that has more. */
export function Sideways({ label, children }: { label: string; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const [more, setMore] = useState({ left: false, right: false });
  const look = useCallback((content: HTMLElement) => {
    const left = content.scrollLeft > SLACK_PX;
    const right = content.scrollWidth - content.scrollLeft - content.clientWidth > SLACK_PX;
    setMore((before) => (before.left === left && before.right === right ? before : { left, right }));
  }, []);
  useRoom(box, look);
  const turn = (way: number) => box.current!.scrollBy({ left: way * box.current!.clientWidth * 0.7 });
  const end = (way: -1 | 1, shown: boolean) =>
    shown && (
      <Button
        data-variant="plain"
        aria-label={`More ${label.toLowerCase()} to the ${way < 0 ? "left" : "right"}`}
        onPress={() => turn(way)}
      >
        {way < 0 ? (
          <ChevronLeft size={18} aria-hidden="true" />
        ) : (
          <ChevronRight size={18} aria-hidden="true" />
        )}
      </Button>
    );
  return (
    <Frame>
      {end(-1, more.left)}
      <Content ref={box} role="group" aria-label={label}>
        {children}
      </Content>
      {end(1, more.right)}
    </Frame>
  );
}
