import { useState } from "react";
import styled from "styled-components";

import { useBuskTold, type BuskRow } from "../../../api/busk";
import { useLiveText } from "../../../live/clock";
import { act, type Action } from "../../../live/socket";
import { Button } from "../../../ui/Button";
import { Group, Line } from "./Group";

const Five = styled(Line)`
  button {
    font-size: 12px;
    padding: 0;
  }
`;
interface Way {
  text: string;
  /** What it will do, said while it is focused or pointed at. */
  will: string;
  action: Action;
}
const ways = (row: BuskRow): Way[] => [
  { text: "Tempos back", will: "Tempos as the show keeps them.", action: { do: "tempos-back" } },
  { text: "Stop effects", will: "All effects go out, looks stay.", action: { do: "stop-all" } },
  {
    text: "Release row",
    will: `${row.name} lets go, in 2 s.`,
    action: { do: "release-row", row: row.id },
  },
  {
    text: "Release all",
    will: "All that is not protected lets go, in 2 s.",
    action: { do: "release-all", seconds: 2 },
  },
];

/** The ways home, each told before it is done, and how to bring back what the last one let go. */
export function WaysHome({ row }: { row: BuskRow }) {
  const [will, setWill] = useState("");
  const back = useBuskTold(({ bring_back, bring_back_until }) => ({ bring_back, bring_back_until }));
  const time = useLiveText<HTMLSpanElement>((now) =>
    back?.bring_back ? ` Back within ${Math.max(0, Math.ceil(back.bring_back_until - now))} s.` : "",
  );
  const told = will || (back?.bring_back ? `${back.bring_back}.` : "Ways home");
  return (
    <Group
      title={
        <span role="status" title={told}>
          {told}
          {!will && <span ref={time} />}
        </span>
      }
    >
      <Five>
        {ways(row).map(({ text, will: says, action }) => (
          <Button
            key={text}
            aria-description={says}
            onPress={() => act(action)}
            onPressStart={() => setWill(says)}
            onPressEnd={() => setWill("")}
            onHoverChange={(over) => setWill(over ? says : "")}
            onFocus={() => setWill(says)}
            onBlur={() => setWill("")}
          >
            {text}
          </Button>
        ))}
        <Button isDisabled={!back?.bring_back} onPress={() => act({ do: "bring-back" })}>
          Bring back
        </Button>
      </Five>
    </Group>
  );
}
