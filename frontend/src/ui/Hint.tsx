import { Tooltip } from "react-aria-components";
import styled from "styled-components";

/** What a control without words says when it is pointed at. */
export const Hint = styled(Tooltip)`
  background: var(--bone);
  color: var(--on-bone);
  padding: 6px 10px;
  border-radius: 2px;
  font-size: 14px;
`;
