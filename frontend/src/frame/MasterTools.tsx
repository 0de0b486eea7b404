import styled from "styled-components";

import { act, useConnection, useLivePart } from "../live/socket";
import { desk } from "../state";
import { Button, Toggle } from "../ui/Button";
import { Slider } from "../ui/Slider";
import { useHeld } from "../ui/useHeld";
import { outputWords } from "../views/output/words";

const Row = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 0;
  .grand {
    width: 96px;
  }
  @media (max-width: 1180px) {
    gap: 6px;
    .grand {
      width: 56px;
    }
  }
`;
const Number = styled.span`
  font-family: var(--numbers);
  font-size: 14px;
  min-width: 5ch;
  text-align: right;
`;
const State = styled(Button)`
  min-width: 72px;
  justify-content: flex-start;
  [role="status"] {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  @media (max-width: 1180px) {
    && {
      padding: 0 6px;
      white-space: normal;
      line-height: 1.1;
      min-width: 0;
      max-width: 76px;
      text-align: left;
    }
    .word {
      display: none;
    }
  }
  b {
    font-family: var(--numbers);
    font-weight: 600;
    padding-left: 0.3em;
  }
  &[data-wrong] {
    border: 1px dashed var(--bone);
    font-weight: 650;
  }
`;

/** Whether light goes out, and the two things over all of it: grand master and blackout. */
export function MasterTools() {
  const state = useLivePart(
    (now) =>
      now && {
        grand: now.grand,
        blackout: now.blackout,
        rate: now.health.rate,
        words: outputWords(now),
      },
  );
  const { connected, engine } = useConnection();
  const [grand, level] = useHeld(Math.round((state?.grand ?? 1) * 100), (value) =>
    act({ do: "grand", value: value / 100 }),
  );
  const sending = connected && engine && state !== null;

  return (
    <Row>
      <State
        data-wrong={(sending && state.words.wrong) || undefined}
        data-variant="plain"
        aria-label={
          !sending
            ? "Output: Not connected"
            : `Output: ${state.words.text}${state.words.wrong ? "" : ` ${state.rate} Hz`}`
        }
        onPress={() => desk.showOutput(sending ? state.words.tab : "health")}
      >
        <span role="status">
          {!sending ? (
            "Not connected"
          ) : state.words.wrong ? (
            state.words.text
          ) : (
            <>
              <span className="word">Sending </span>
              <b>{state.rate} Hz</b>
            </>
          )}
        </span>
      </State>
      <div className="grand">
        <Slider
          bare
          label="Grand master"
          minValue={0}
          maxValue={100}
          value={grand}
          onChange={level}
          isDisabled={!sending}
        />
      </div>
      <Number className="percent" aria-hidden="true">
        {grand} %
      </Number>
      <Toggle
        isSelected={state?.blackout ?? false}
        isDisabled={!sending}
        onChange={(on) => act({ do: "blackout", on })}
      >
        Blackout
      </Toggle>
    </Row>
  );
}
