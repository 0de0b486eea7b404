import { useEffect, useRef, useState } from "react";
import styled from "styled-components";

import { onEveryFrame } from "../live/loop";
import { BpmField } from "./BpmField";
import { act, live, useLive, useLivePart, useTempos } from "../live/socket";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";

const Row = styled.div`
  @media (max-width: 1180px) {
    gap: 4px;
    input {
      width: 3.6em;
    }
  }
  display: flex;
  align-items: center;
  gap: 6px;
`;
const Beat = styled.span`
  width: 10px;
  height: 10px;
  border: 1px solid var(--edge);
  &[data-on="true"] {
    background: var(--bone);
    border-color: var(--bone);
  }
`;

/** A tempo: which, how fast, tap; a square that lights on the beat. */
export function TempoTools() {
  const tempos = useTempos();
  const [name, setName] = useState("Movement");
  const square = useRef<HTMLSpanElement>(null);
  const tempo = tempos?.find((one) => one.name === name) ?? tempos?.[0];
  /** A song that plays drives it, until it is taken. */
  const led = useLivePart((state) => {
    const song = state?.songs?.find((one) => !one.leaving && one.speed > 0);
    return !!song && !song.hands.some((one) => one.subject.startsWith("tempo:") && one.name === tempo?.name);
  });

  useEffect(
    () =>
      onEveryFrame(() => {
        const state = useLive.getState().state;
        const one = state?.tempos.find((other) => other.name === name) ?? state?.tempos[0];
        if (!square.current || !one || !state || !live.heads) return;
        const beat = one.beat + ((live.heads.time - state.t) * one.bpm) / 60;
        const on = String(((beat % 1) + 1) % 1 < 0.2);
        if (square.current.dataset.on !== on) square.current.dataset.on = on;
      }),
    [name],
  );

  return (
    <Row role="group" aria-label="Tempo">
      <Beat ref={square} aria-hidden="true" />
      <div className="tempo">
        <Choice
          label="Tempo"
          hideLabel
          options={(tempos ?? []).map((one) => ({ id: one.name, text: one.name }))}
          value={tempo?.name ?? null}
          onChange={(key) => setName(String(key))}
          placeholder="Tempo"
        />
      </div>
      <div className="bpm">
        <BpmField tempo={tempo} />
      </div>
      {led ? (
        <Button
          onPress={() => tempo && act({ do: "take-tempo", tempo: tempo.name })}
          aria-label={`Take ${tempo?.name} from the song`}
        >
          Take
        </Button>
      ) : (
        <Button isDisabled={!tempo} onPressStart={() => tempo && act({ do: "tap", tempo: tempo.name })}>
          Tap
        </Button>
      )}
    </Row>
  );
}
