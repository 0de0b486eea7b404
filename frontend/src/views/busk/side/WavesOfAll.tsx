import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { useBuskTold } from "../../../api/busk";
import { act } from "../../../live/socket";
import { Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Group, Line } from "./Group";

const OWN = "own";
const SHAPES = [OWN, "swell", "rise", "fall", "square"];
const OTHERS = ["triangle", "strike", "steps"];
const SPREADS = ["together", "one wave", "two waves", "in turn"];
const TRAVELS = [
  { id: "forward", text: "onward" },
  { id: "reverse", text: "the other way" },
  { id: "back-and-forth", text: "there and back" },
];
const Shapes = styled(ToggleButtonGroup)`
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  button {
    min-height: 40px;
    padding: 0 2px;
    font-size: 13px;
  }
  button + button {
    margin-left: -1px;
  }
`;
const plain = (words: string[]) => words.map((text) => ({ id: text, text }));
/** One tap gives all of it back. */
const ALL_OWN = { do: "all-waves", shape: "", spread: "", travel: "" } as const;
const none = (key: React.Key) => (key === OWN ? "" : String(key));

/** Waveform, spread and travel of all intensity effects at once. */
export function WavesOfAll() {
  const told = useBuskTold(({ shape, spread, travel }) => ({ shape, spread, travel }));
  const shape = told?.shape || OWN;
  return (
    <Group title="Wave of all intensity effects">
      <Shapes
        aria-label="Waveform of all intensity effects"
        selectionMode="single"
        selectedKeys={[shape]}
        onSelectionChange={([key = OWN]) =>
          act(key === OWN ? ALL_OWN : { do: "all-waves", shape: none(key) })
        }
      >
        {SHAPES.map((one) => (
          <Toggle key={one} id={one}>
            {one}
          </Toggle>
        ))}
      </Shapes>
      <Line>
        <Choice
          label="Other waveforms"
          hideLabel
          placeholder="others"
          value={OTHERS.includes(shape) ? shape : null}
          options={plain(OTHERS)}
          onChange={(key) => act({ do: "all-waves", shape: none(key) })}
        />
        <Choice
          label="Spread of all intensity effects"
          hideLabel
          value={told?.spread || OWN}
          options={[{ id: OWN, text: "own spread" }, ...plain(SPREADS)]}
          onChange={(key) => act({ do: "all-waves", spread: none(key) })}
        />
        <Choice
          label="Travel of all intensity effects"
          hideLabel
          value={told?.travel || OWN}
          options={[{ id: OWN, text: "own travel" }, ...TRAVELS]}
          onChange={(key) => act({ do: "all-waves", travel: none(key) })}
        />
      </Line>
    </Group>
  );
}
