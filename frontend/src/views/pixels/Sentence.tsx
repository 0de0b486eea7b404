import { Fragment } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { Slot } from "../effects/editor/slots/Slot";
import type { Hands } from "../effects/editor/useEditor";

const Line = styled.p`
  font-size: 17px;
  line-height: 30px;
  &[data-quiet] {
    font-size: 15px;
    line-height: 28px;
    color: var(--quiet);
  }
`;
/** A value, and the sign behind it on the same line. */
const Together = styled.span`
  white-space: nowrap;
  button {
    white-space: normal;
  }
`;
const SIGNS = /^[,.):]/;

/** A sentence whose values are its controls. */
export function Sentence({
  parts,
  hands,
  label,
  quiet,
}: {
  parts: Schemas["SentencePart"][];
  hands: Hands;
  label: string;
  quiet?: boolean;
}) {
  return (
    <Line role="group" aria-label={label} data-quiet={quiet || undefined}>
      {parts.map((part, n) => {
        const before = parts[n - 1];
        const sign = SIGNS.exec(parts[n + 1]?.text ?? "")?.[0] ?? "";
        const text = before?.slot && SIGNS.test(part.text) ? part.text.slice(1).trimStart() : part.text;
        return (
          <Fragment key={part.slot ?? n}>
            {n > 0 && text && (before!.slot || !SIGNS.test(text)) && " "}
            {part.slot ? (
              <Together>
                <Slot part={part} editor={hands} warned={false} />
                {sign}
              </Together>
            ) : (
              text
            )}
          </Fragment>
        );
      })}
    </Line>
  );
}
