import { Square } from "lucide-react";
import type { ReactNode } from "react";
import styled from "styled-components";

import { useLiveText } from "../live/clock";
import { desk } from "../state";
import { Button } from "../ui/Button";

const Frame = styled.div`
  display: flex;
  align-items: center;
  border: 1px solid var(--edge);
  border-radius: 2px;
  flex: none;
  height: 42px;
  &[data-fading] {
    border-style: dashed;
  }
  button {
    min-height: 40px;
    border: 0;
    padding: 0 8px;
  }
  .name {
    display: grid;
    justify-items: start;
    line-height: 1.15;
    gap: 0;
    text-align: left;
  }
  .from {
    color: var(--quiet);
    font-size: 13px;
  }
  .name[data-pressed] .from {
    color: var(--on-bone);
  }
`;

/** Words that are written anew with every frame. */
export function LiveWords({ words }: { words: (now: number) => string }) {
  return <span ref={useLiveText<HTMLSpanElement>(words)} />;
}

interface Props {
  name: string;
  /** Where it comes from and how it is; a function: written anew with every frame. */
  from: ReactNode | ((now: number) => string);
  onOpen?: () => void;
  stop: { label: string; does: () => void; disabled?: boolean };
  isFading?: boolean;
  /** A picture of it, before its name. */
  picture?: ReactNode;
  tools?: ReactNode;
}

/** Something that runs, in the ribbon: opened by its name, stopped by its button. */
export function Chip({
  name,
  from,
  onOpen = () => desk.show("busk"),
  stop,
  isFading,
  picture,
  tools,
}: Props) {
  return (
    <Frame data-fading={isFading || undefined}>
      {picture}
      <Button data-variant="plain" className="name" onPress={onOpen}>
        <span>{name}</span>
        <span className="from">{typeof from === "function" ? <LiveWords words={from} /> : from}</span>
      </Button>
      {tools}
      <Button data-variant="plain" aria-label={stop.label} isDisabled={stop.disabled} onPress={stop.does}>
        <Square size={12} fill="currentColor" aria-hidden="true" />
      </Button>
    </Frame>
  );
}
