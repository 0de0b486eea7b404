import styled from "styled-components";

import { useConnection } from "../live/socket";

const Lost = styled.p`
  background: var(--bone);
  color: var(--on-bone);
  padding: 6px 16px;
  text-align: center;
  flex: none;
`;

/** Said when the page does not hear from Zarabanda, or the engine does not run. */
export function LostNotice() {
  const { connected, everConnected, engine } = useConnection();
  if (connected && !engine)
    return <Lost role="alert">The engine is being started again; it goes on where it was.</Lost>;
  if (connected || !everConnected) return null;
  return (
    <Lost role="alert">
      Not connected to Zarabanda. The lights go on; this page connects again by itself.
    </Lost>
  );
}
