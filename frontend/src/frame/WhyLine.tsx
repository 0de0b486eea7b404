import { Button } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../api/client";
import { desk, type View } from "../state";

const Line = styled.li`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  > * {
    min-width: 0;
  }
  b {
    font-weight: 650;
  }
  small {
    color: var(--quiet);
    font-size: 14px;
    grid-column: 1 / 3;
  }
  button {
    background: none;
    border: 0;
    padding: 0;
    color: inherit;
    font: inherit;
    font-weight: 650;
    text-decoration: underline;
    cursor: pointer;
    text-align: left;
  }
`;
const After = styled.span`
  display: flex;
  align-items: center;
  gap: 6px;
  font: 14px var(--numbers);
  white-space: nowrap;
  i {
    width: 16px;
    height: 16px;
    border: 1px solid var(--edge);
  }
`;

/** One line of the way of a value; pressed, what it names is opened. */
export function WhyLine({ line }: { line: Schemas["TraceLine"] }) {
  const { title, detail, value, colour, target, share, opens } = line;
  const open = () => {
    if (opens?.effect) desk.open(opens.effect, null);
    if (opens?.list) desk.openList(opens.list, opens.cue ?? null);
    else if (opens) desk.show(opens.view as View);
  };
  const partly = share !== null && share < 1;
  return (
    <Line>
      {opens ? <Button onPress={open}>{title}</Button> : <b>{title}</b>}
      <After>
        {colour && <i style={{ background: colour }} aria-hidden="true" />}
        {value}
      </After>
      <small>
        {partly ? detail.replace(/\.$/, "") : detail}
        {partly && `; ${Math.round(share * 100)} %${target ? ` on its way to ${target}` : ""}`}
      </small>
    </Line>
  );
}
