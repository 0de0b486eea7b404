import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { useBuskTold } from "../../../api/busk";
import { act } from "../../../live/socket";
import { Toggle } from "../../../ui/Button";
import { Fader } from "../../../ui/Fader";
import { Group, Line } from "./Group";

const Waits = styled(ToggleButtonGroup)`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  button {
    min-height: 40px;
    padding: 0 4px;
    font-size: 14px;
  }
  button + button {
    margin-left: -1px;
  }
`;
const LONGEST_S = 20;
/** Short times have the most room: the time is the square of the way. */
export const secondsAt = (way: number) => Math.round(LONGEST_S * (way / 100) ** 2 * 10) / 10;
export const wayOf = (seconds: number) => Math.sqrt(seconds / LONGEST_S) * 100;

/** What the next press of a pad takes, or waits for. */
export function NextChange() {
  const told = useBuskTold(({ seconds, position_s, waits }) => ({ seconds, position_s, waits }));
  const fader = (label: string, seconds: number, onMove: (seconds: number) => void) => (
    <Fader
      label={label}
      value={wayOf(seconds)}
      words={(way) => `${secondsAt(way)} s`}
      onMove={(way) => onMove(secondsAt(way))}
    />
  );
  return (
    <Group title="Next change takes: all, position">
      <Line>
        {fader("Next change takes", told?.seconds ?? 0, (seconds) => act({ do: "next-change", seconds }))}
        {fader("Next change of position takes", told?.position_s ?? 0, (position_s) =>
          act({ do: "next-change", position_s }),
        )}
      </Line>
      <Waits
        aria-label="Next change waits for"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={told ? [told.waits || "now"] : []}
        onSelectionChange={([key]) =>
          act({ do: "next-change", waits: key === "now" ? "" : (key as "beat" | "bar") })
        }
      >
        <Toggle id="now">at once</Toggle>
        <Toggle id="beat">on the beat</Toggle>
        <Toggle id="bar">on the bar</Toggle>
      </Waits>
    </Group>
  );
}
