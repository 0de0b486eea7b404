import styled from "styled-components";

import type { Special, SpecialTold } from "../../../api/specials";
import { useLiveText } from "../../../live/clock";
import { act } from "../../../live/socket";
import { PadFrame } from "../rows/PadFrame";
import { phaseWords } from "./phases";

const Frame = styled(PadFrame)`
  text-align: left;
  padding: 0 7px;
  &[data-leaving] {
    background: var(--hatch) left / 5px 100% no-repeat;
  }
  b,
  small {
    display: block;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  b {
    font-size: 14px;
    font-weight: inherit;
  }
  small {
    font-size: 12px;
    font-weight: 400;
    color: var(--quiet);
  }
`;

interface Props {
  special: Special;
  told: SpecialTold | undefined;
  narrow: boolean;
}

/** A special: pressed, its lights go out of the look through the dark; pressed again, the same way back. */
export function SpecialPad({ special, told, narrow }: Props) {
  const rest = special.aim.text ? `! ${special.aim.text}` : `${special.lights}, ${special.aimed_at}`;
  const phase = useLiveText<HTMLElement>((now) => (told && phaseWords(told, now, narrow)) || rest);
  const on = told?.on ?? false;
  return (
    <Frame
      aria-description={special.aim.text || undefined}
      aria-pressed={on}
      data-on={on || undefined}
      data-leaving={(!on && told && told.phase !== "off") || undefined}
      onPress={() => act({ do: "special", special: special.id, on: !on })}
    >
      <b>{special.name}</b>
      <small ref={phase} title={special.aim.text || undefined} />
    </Frame>
  );
}
