import { Button } from "react-aria-components";
import styled from "styled-components";

import { desk } from "../../state";
import type { Value } from "./values";

const From = styled(Button)`
  background: none;
  border: 0;
  padding: 2px 0;
  color: var(--quiet);
  font: inherit;
  font-size: 13px;
  line-height: 1.15;
  text-align: left;
  cursor: help;
  overflow: hidden;
  text-overflow: ellipsis;
  max-height: 34px;
  &[data-hovered] {
    color: var(--bone);
    text-decoration: underline;
  }
`;

interface Props {
  value: Value;
  /** What to ask about, where that is not the value's own attribute. */
  attribute?: string;
  children?: React.ReactNode;
}

/** From what a value comes; pressed, it says the whole way of it to the stage. */
export function Origin({ value, attribute, children }: Props) {
  const { source, heads, label } = value;
  return (
    <From
      aria-label={`${attribute ?? label}: ${source}. Why?`}
      onPress={() => desk.ask({ head: heads[0]!, attribute: attribute ?? value.attribute })}
    >
      {source}
      {children && (
        <>
          <br />
          {children}
        </>
      )}
    </From>
  );
}
