import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { SentenceWords } from "../effects/editor/SentenceWords";
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

interface Props {
  parts: Schemas["SentencePart"][];
  hands: Hands;
  label: string;
  quiet?: boolean;
}

/** A sentence whose values are its controls. */
export function Sentence({ parts, hands, label, quiet }: Props) {
  return (
    <Line role="group" aria-label={label} data-quiet={quiet || undefined}>
      <SentenceWords parts={parts} hands={hands} />
    </Line>
  );
}
