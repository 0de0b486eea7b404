import styled from "styled-components";

import type { CueList, Told } from "../../api/cues";
import { useLiveText } from "../../live/clock";
import { GiveBack } from "../../frame/GiveBack";
import { act } from "../../live/socket";
import { Button, Toggle } from "../../ui/Button";
import { Slider } from "../../ui/Slider";
import { useHeld } from "../../ui/useHeld";
import { seconds } from "./cues";

const Bar = styled.footer`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 8px 12px;
  border-top: 1px solid var(--line);
  button {
    min-height: 56px;
  }
  .go {
    flex: 1 1 190px;
    max-width: 260px;
    min-width: 150px;
    justify-content: flex-start;
    gap: 14px;
    overflow: hidden;
    background: var(--bone);
    color: var(--on-bone);
    border-color: var(--bone);
    b {
      font-size: 22px;
    }
    small {
      font-size: 14px;
      text-align: left;
      line-height: 1.2;
      overflow: hidden;
      text-overflow: ellipsis;
    }
  }
  .go[data-disabled] {
    background: transparent;
    color: var(--quiet);
    border-color: var(--line);
  }
  .go[data-pressed] {
    background: var(--quiet);
  }
`;
const Level = styled.label`
  display: grid;
  width: 92px;
  gap: 2px;
  margin-left: auto;
  font-size: 13px;
  color: var(--quiet);
  span {
    display: flex;
    justify-content: space-between;
    font-variant-numeric: tabular-nums;
  }
`;
const RELEASE_S = 2;

/** What plays a list: go, back, pause, release, and its fader. */
export function GoBar({ list, told }: { list: CueList; told: Told | null }) {
  const next = list.rows.find((row) => row.id === told?.next);
  const paused = told?.paused_at != null;
  const waits = useLiveText<HTMLSpanElement>((now) => {
    if (told?.follows_at == null || paused) return "";
    const left = Math.max(0, told.follows_at - now);
    return told.follows ? ` by itself in ${seconds(left)} s` : ` releases itself in ${seconds(left)} s`;
  });
  const [level, move] = useHeld(Math.round((told?.level ?? 1) * 100), (value) =>
    act({ do: "list-level", list: list.id, value: value / 100 }),
  );
  return (
    <Bar>
      <Button
        className="go"
        isDisabled={!told || (!next && !paused)}
        onPress={() => act({ do: "go", list: list.id })}
      >
        <b>Go</b>
        <small>
          {paused ? "goes on" : next ? `${next.number} ${next.name}` : "at the end"}
          <span ref={waits} />
        </small>
      </Button>
      <Button isDisabled={told?.cue == null} onPress={() => act({ do: "back", list: list.id })}>
        Back
      </Button>
      <Toggle
        isSelected={paused}
        isDisabled={told?.cue == null}
        onChange={(on) => act({ do: on ? "pause" : "resume", list: list.id })}
      >
        Pause
      </Toggle>
      <Button
        isDisabled={told?.cue == null}
        onPress={() => act({ do: "release", list: list.id, seconds: RELEASE_S })}
      >
        Release
      </Button>
      <GiveBack subjects={[`list:${list.id}`, `list-level:${list.id}`]} />
      <Level>
        <span>
          Level <b>{level} %</b>
        </span>
        <Slider
          bare
          label={`Level of ${list.name}`}
          minValue={0}
          maxValue={100}
          value={level}
          onChange={move}
        />
      </Level>
    </Bar>
  );
}
