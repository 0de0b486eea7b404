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

/** Content that scrolls where there is no room for all of it, and then says so below. */
export function Scroller({ children, className }: { children: ReactNode; className?: string }) {
  const box = useRef<HTMLDivElement>(null);
  const [more, setMore] = useState(false);
  const [scrolls, setScrolls] = useState(false);
  const look = useCallback((content: HTMLElement) => {
    setMore(content.scrollHeight - content.scrollTop - content.clientHeight > SLACK_PX);
    setScrolls(content.scrollHeight - content.clientHeight > SLACK_PX);
  }, []);
  useRoom(box, look);
  return (
    <Frame className={className}>
      <Content ref={box} tabIndex={scrolls ? 0 : undefined}>
        {children}
      </Content>
      {more && (
        <More>
          <Button
            data-variant="plain"
            onPress={() => box.current!.scrollBy({ top: box.current!.clientHeight - 40 })}
          >
            More below <ChevronDown size={14} aria-hidden="true" />
          </Button>
        </More>
      )}
    </Frame>
  );
}
