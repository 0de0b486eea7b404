import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";

import { useEveryFrame } from "../../../live/clock";
import { act, useLive } from "../../../live/socket";
import { Button } from "../../../ui/Button";
import { Fader } from "../../../ui/Fader";

const Column = styled.div`
  display: grid;
  grid-template-rows: 40px 36px 40px;
  gap: 3px;
  min-width: 0;
  @media (max-height: 799px) {
    grid-template-rows: 34px 22px 40px;
  }
`;
const Name = styled(AriaButton)`
  border: 1px solid transparent;
  background: transparent;
  color: var(--bone);
  font: inherit;
  cursor: pointer;
  overflow: hidden;
  text-align: left;
  position: relative;
  &[data-chosen] {
    border-color: var(--bone);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
  b {
    display: block;
    font: 650 15px var(--numbers);
  }
  small {
    display: block;
    font-size: 12px;
    color: var(--quiet);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;
const Beat = styled.i`
  position: absolute;
  right: 3px;
  top: 4px;
  width: 9px;
  height: 9px;
  border: 1px solid var(--edge);
  &[data-on="true"] {
    background: var(--bone);
    border-color: var(--bone);
  }
`;
const SLOWEST = 20;
const FASTEST = 220;
const SHORT = 0.2;

interface Props {
  tempo: { name: string; bpm: number; held: boolean };
  chosen: boolean;
  onChoose: () => void;
}

/** A tempo: how fast it is, its beat, its fader and its tap. */
export function TempoColumn({ tempo, chosen, onChoose }: Props) {
  const beat = useEveryFrame<HTMLElement>((element, now) => {
    const state = useLive.getState().state;
    const told = state?.tempos.find((one) => one.name === tempo.name);
    if (!state || !told) return;
    const at = told.beat + (now - state.t) * (told.rate ?? told.bpm / 60);
    const on = String(!told.held && ((at % 1) + 1) % 1 < SHORT);
    if (element.dataset.on !== on) element.dataset.on = on;
  });
  const bpm = Math.round(tempo.bpm * 10) / 10;
  return (
    <Column>
      <Name
        aria-label={`${bpm} ${tempo.name}, choose`}
        aria-pressed={chosen}
        data-chosen={chosen || undefined}
        onPress={onChoose}
      >
        <b>{bpm}</b> <small>{tempo.name}</small>
        <Beat ref={beat} aria-hidden="true" />
      </Name>
      <Fader
        label={`Speed of ${tempo.name}`}
        vertical
        low={SLOWEST}
        high={FASTEST}
        value={tempo.bpm}
        words={() => (tempo.held ? "held" : "")}
        onMove={(value) => act({ do: "bpm", tempo: tempo.name, value })}
      />
      <Button aria-label={`Tap ${tempo.name}`} onPressStart={() => act({ do: "tap", tempo: tempo.name })}>
        Tap
      </Button>
    </Column>
  );
}
