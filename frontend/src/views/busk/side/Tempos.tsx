import { useState } from "react";

import { useBuskEdits } from "../../../api/busk";
import { act, useLivePart } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button, Toggle } from "../../../ui/Button";
import { Group, Line } from "./Group";
import { TempoColumn } from "./TempoColumn";

const MOST = 4;
const RATIOS = [0.25, 0.5, 1, 2, 4];
const times = (ratio: number) => (ratio === 0.5 ? "½ ×" : ratio === 0.25 ? "¼ ×" : `${ratio} ×`);

/** Speeds: each with its fader and tap; the chosen one with all else that can be done with it. */
export function Tempos() {
  const edits = useBuskEdits();
  const [name, setName] = useState<string | null>(null);
  const tempos = useLivePart(
    (state) =>
      state?.tempos.map((one) => ({
        name: one.name,
        bpm: one.bpm,
        kept: one.kept ?? one.bpm,
        held: one.held ?? false,
        follows: one.follows ?? null,
        ratio: one.ratio ?? 1,
      })) ?? [],
  );
  const chosen = tempos.find((one) => one.name === name) ?? tempos[0];
  if (!chosen) return null;
  const others = tempos.filter((one) => one.name !== chosen.name && !one.follows);
  const title = chosen.follows
    ? `${chosen.name} follows ${chosen.follows}, ${times(chosen.ratio)}`
    : `${chosen.name}${chosen.held ? " is held" : ""}, kept at ${Math.round(chosen.kept * 10) / 10} BPM`;
  const follow = others.flatMap((one) =>
    RATIOS.map((ratio) => ({ id: `${ratio} ${one.name}`, text: `Follow ${one.name}, ${times(ratio)}` })),
  );
  function choose(id: string) {
    const tempo = chosen!.name;
    if (id === "line-up") act({ do: "line-up", tempo });
    else if (id === "own") act({ do: "follow-tempo", tempo });
    else if (id === "keep") void edits.keepTempo(tempo, Math.round(chosen!.bpm * 10) / 10);
    else {
      const [ratio, ...main] = id.split(" ");
      act({ do: "follow-tempo", tempo, main: main.join(" "), ratio: Number(ratio) });
    }
  }
  return (
    <Group title={title}>
      <Line>
        {tempos.slice(0, MOST).map((one) => (
          <TempoColumn
            key={one.name}
            tempo={one}
            chosen={one === chosen}
            onChoose={() => setName(one.name)}
          />
        ))}
      </Line>
      <Line role="group" aria-label={`${chosen.name}, more`}>
        <Button
          aria-label={`½ of ${chosen.name}`}
          onPress={() => act({ do: "tempo-times", tempo: chosen.name, factor: 0.5 })}
        >
          ½
        </Button>
        <Button
          aria-label={`2 × ${chosen.name}`}
          onPress={() => act({ do: "tempo-times", tempo: chosen.name, factor: 2 })}
        >
          2 ×
        </Button>
        <Toggle
          isSelected={chosen.held}
          aria-label={`Hold ${chosen.name}`}
          onChange={(on) => act({ do: "hold-tempo", tempo: chosen.name, on })}
        >
          hold
        </Toggle>
        <Button
          aria-label={`${chosen.name} back`}
          onPress={() => act({ do: "tempos-back", tempo: chosen.name })}
        >
          back
        </Button>
        <ActionMenu
          label={chosen.name}
          onAction={choose}
          actions={[
            { id: "line-up", text: "Line up its effects on the beat" },
            { id: "keep", text: `Keep ${Math.round(chosen.bpm * 10) / 10} BPM in the show` },
            chosen.follows !== null && { id: "own", text: "On its own" },
            ...follow,
          ]}
        />
      </Line>
    </Group>
  );
}
