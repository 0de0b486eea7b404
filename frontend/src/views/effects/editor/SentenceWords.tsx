import { Fragment } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import type { Hands } from "./useEditor";
import { Slot } from "./slots/Slot";

/** A value, and the sign behind it on the same line. */
const Together = styled.span`
  white-space: nowrap;
  button {
    white-space: normal;
  }
`;
const SIGNS = /^[,.):]/;

interface Props {
  parts: Schemas["SentencePart"][];
  hands: Hands;
  /** Whether a warning concerns this value. */
  isWarned?: (slot: string) => boolean;
}

/** The words of a sentence, and its values as controls, with spaces and signs where they belong. */
export function SentenceWords({ parts, hands, isWarned }: Props) {
  return parts.map((part, n) => {
    const before = parts[n - 1];
    const sign = SIGNS.exec(parts[n + 1]?.text ?? "")?.[0] ?? "";
    const text = before?.slot && SIGNS.test(part.text) ? part.text.slice(1).trimStart() : part.text;
    const joined = !before?.slot && SIGNS.test(text);
    const space = n > 0 && text && !joined && !before!.text.endsWith("(") ? " " : "";
    return (
      <Fragment key={part.slot ?? `word ${n}`}>
        {space}
        {part.slot ? (
          <Together>
            <Slot part={part} editor={hands} warned={isWarned?.(part.slot) ?? false} />
            {sign}
          </Together>
        ) : (
          text
        )}
      </Fragment>
    );
  });
}
