import { ChevronDown } from "lucide-react";
import { useCallback, useRef, useState, type ReactNode } from "react";
import styled from "styled-components";

import { Button } from "./Button";
import { useRoom } from "./useRoom";

const Frame = styled.div`
  display: flex;
  flex-direction: column;
  min-height: 0;
`;
const Content = styled.div`
  overflow: auto;
  flex: 1;
  min-height: 0;
`;
const More = styled.div`
  flex: none;
  border-top: 1px solid var(--line);
  button {
    width: 100%;
    min-height: 28px;
    font-size: 14px;
    justify-content: center;
    color: var(--quiet);
  }
`;
/** A pixel or two are no more to see. */
const SLACK_PX = 6;

/** Content that scrolls where there is no room for all of it, and then says so below, on a line that stays: at the end of the
 * content nothing may move away under a pointer. */
export function Scroller({ children, className }: { children: ReactNode; className?: string }) {
  const box = useRef<HTMLDivElement>(null);
  const [more, setMore] = useState(false);
  const [scrolls, setScrolls] = useState(false);
  const look = useCallback((content: HTMLElement) => {
    setMore(content.scrollHeight - content.scrollTop - content.clientHeight > SLACK_PX);
    const line = (content.nextElementSibling as HTMLElement | null)?.offsetHeight ?? 0;
    setScrolls(content.scrollHeight - content.clientHeight - line > SLACK_PX);
  }, []);
  useRoom(box, look);
  return (
    <Frame className={className}>
      <Content ref={box} tabIndex={scrolls ? 0 : undefined}>
        {children}
      </Content>
      {scrolls && (
        <More>
          <Button
            data-variant="plain"
            isDisabled={!more}
            onPress={() => box.current!.scrollBy({ top: box.current!.clientHeight - 40 })}
          >
            {more ? "More below" : "No more below"}
            {more && <ChevronDown size={14} aria-hidden="true" />}
          </Button>
        </More>
      )}
    </Frame>
  );
}
