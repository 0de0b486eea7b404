import { useState } from "react";
import styled from "styled-components";

import { timecodeEdits, type TimecodeView } from "../../../api/timecode";
import { useSongs } from "../../../api/timelines";
import { useEveryFrame } from "../../../live/clock";
import { frameS, labelAfter } from "../../../live/timecode";
import { Button, Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { ShareField } from "../../../ui/ShareField";
import { TextField } from "../../../ui/TextField";

const Part = styled.section`
  border-top: 1px solid var(--edge);
  padding: 14px 0 24px;
  display: grid;
  gap: 12px;
  p {
    color: var(--quiet);
    max-width: 62em;
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 20px;
  align-items: end;
  output {
    font: 28px var(--numbers);
    min-width: 9em;
  }
  input {
    font-family: var(--numbers);
  }
`;
type Player = NonNullable<TimecodeView["player"]>;
const RATES = ["24", "25", "29.97 drop", "30"];

interface Props {
  player: Player;
  /** When that was told, ms since 1970. */
  toldAt: number;
}

/** Its label, which counts on between what is told of it. */
function PlayerLabel({ player, toldAt }: Props) {
  const element = useEveryFrame<HTMLOutputElement>((shown) => {
    const { label, rate, runs, speed } = player;
    const passed = runs ? Math.max(((Date.now() - toldAt) / 1000) * speed, 0) : 0;
    const now = labelAfter(label, rate, Math.floor(passed / frameS(rate)));
    if (shown.textContent !== now) shown.textContent = now;
  });
  return <output ref={element} aria-label="Its label" />;
}

/** A stand-in for a player of timecode: what it plays, and how badly. */
export function PlayerTools({ player, toldAt }: Props) {
  const [label, setLabel] = useState<string | null>(null);
  const { data: songs } = useSongs();
  const how = (part: Parameters<typeof timecodeEdits.player>[0]["how"]) =>
    void timecodeEdits.player({ how: part });
  const well =
    player.speed === 1 && !player.jitter_ms && !player.dropout && !player.says && player.second === null;
  const go = (to: string) => {
    void timecodeEdits.player({ label: to });
    setLabel(null);
  };
  return (
    <Part aria-label="Simulated player">
      <h2>Simulated player</h2>
      <p>
        A stand-in for the machine that plays the sound and sends its timecode: MTC in quarter frames, over a
        line of this machine. {player.listeners ? "It is heard." : "Nobody hears it now."}
      </p>
      <Row>
        <PlayerLabel player={player} toldAt={toldAt} />
        <Toggle isSelected={player.runs} onChange={(on) => void timecodeEdits.player({ on })}>
          {player.runs ? "Stop" : "Play"}
        </Toggle>
        <TextField
          label="Go to a label"
          value={label ?? player.label}
          onChange={setLabel}
          onBlur={() => setLabel(null)}
          onKeyDown={(event) => event.key === "Enter" && label !== null && go(label)}
        />
        {songs
          ?.filter((one) => one.clock === "MTC")
          .map((one) => (
            <Button key={one.id} onPress={() => go(one.begins)}>
              {one.name}
            </Button>
          ))}
      </Row>
      <Row>
        <Choice
          label="Frames a second"
          value={player.rate}
          options={RATES.map((one) => ({ id: one, text: one }))}
          onChange={(rate) => how({ rate: rate as "25" })}
        />
        <Choice
          label="It claims to have"
          value={player.says || "right"}
          options={[
            { id: "right", text: "what it has" },
            ...RATES.map((one) => ({ id: one, text: `${one}, wrongly` })),
          ]}
          onChange={(says) => how({ says: (says === "right" ? "" : says) as "25" })}
        />
        <NumberField
          label="Speed"
          unit="times"
          minValue={-4}
          maxValue={4}
          step={0.001}
          value={player.speed}
          onChange={(speed) => Number.isFinite(speed) && how({ speed })}
        />
        <NumberField
          label="Jitter, up to ±"
          unit="ms"
          minValue={0}
          maxValue={200}
          value={player.jitter_ms}
          onChange={(jitter_ms) => how({ jitter_ms: jitter_ms || 0 })}
        />
        <ShareField
          label="Lost on the way"
          value={player.dropout}
          onChange={(dropout) => how({ dropout: dropout || 0 })}
        />
        <Toggle isSelected={player.second !== null} onChange={(two) => how({ two })}>
          A second player on the line
        </Toggle>
        <Button
          data-variant="plain"
          isDisabled={well}
          onPress={() => how({ says: "", speed: 1, jitter_ms: 0, dropout: 0, two: false })}
        >
          Behave
        </Button>
      </Row>
    </Part>
  );
}
