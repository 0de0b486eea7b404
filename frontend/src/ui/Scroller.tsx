import { ChevronDown } from "lucide-react";
import { useEffect, useRef, useState, type ReactNode } from "react";
import styled from "styled-components";

import { Button } from "./Button";

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
  useEffect(() => {
    const content = box.current!;
    const look = () => setMore(content.scrollHeight - content.scrollTop - content.clientHeight > SLACK_PX);
    look();
    const sizes = new ResizeObserver(look);
    sizes.observe(content);
    const changes = new MutationObserver(look);
    changes.observe(content, { childList: true, subtree: true, characterData: true });
    content.addEventListener("scroll", look, { passive: true });
    return () => {
      sizes.disconnect();
      changes.disconnect();
      content.removeEventListener("scroll", look);
    };
  }, []);
  return (
    <Frame className={className}>
      <Content ref={box}>{children}</Content>
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
