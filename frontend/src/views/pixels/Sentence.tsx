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
      {parts.map((part, n) => (
        <span key={part.slot ?? n}>
          {n > 0 && !SIGNS.test(part.text) && " "}
          {part.slot ? <Slot part={part} editor={hands} warned={false} /> : part.text}
        </span>
      ))}
    </Line>
  );
}
