import styled from "styled-components";

import type { useHand } from "../../api/hand";
import type { Rig } from "../../api/rig";
import { Button } from "../../ui/Button";
import { useDark } from "./useDark";

const Line = styled.p`
  display: flex;
  align-items: center;
  gap: 10px;
  font-size: 14px;
  padding: 2px 0;
  button {
    min-height: 28px;
  }
`;

interface Props {
  rig: Rig;
  /** Heads that have something set by hand. */
  heads: string[];
  hand: ReturnType<typeof useHand>;
}

/** Says that what was set is not seen, since the lights are dark, and offers the level. */
export function DarkNotice({ rig, heads, hand }: Props) {
  const dark = useDark(rig, heads);
  if (!dark.length) return null;
  const all = dark.length === heads.length;
  return (
    <Line role="status">
      {all ? "These lights are dark" : `${dark.length} of ${heads.length} lights are dark`}: what is set is
      not seen.
      <Button
        data-variant="small"
        onPress={() => void hand.commit({ attribute: "intensity", heads: dark, to: 100 })}
      >
        Bring them to 100 %
      </Button>
    </Line>
  );
}
