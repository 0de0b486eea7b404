import { useRef, useState } from "react";
import styled from "styled-components";

import { act, useConnection, useLivePart } from "../live/socket";
import { Toggle } from "../ui/Button";
import { Slider } from "../ui/Slider";

const Row = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
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
const State = styled.span`
  @media (max-width: 1180px) {
    .word {
      display: none;
    }
  }
  white-space: nowrap;
  b {
    font-family: var(--numbers);
    font-weight: 600;
  }
`;

/** Whether light goes out, and the two things over all of it: grand master and blackout. */
export function MasterTools() {
  const state = useLivePart(
    (now) =>
      now && { grand: now.grand, blackout: now.blackout, rate: now.health.rate, outputs: now.outputs.length },
  );
  const { connected, engine } = useConnection();
  const [held, setHeld] = useState<number | null>(null);
  const letGo = useRef(0);
  const grand = held ?? Math.round((state?.grand ?? 1) * 100);
  const sending = connected && engine && state !== null;

  function level(value: number) {
    setHeld(value);
    act({ do: "grand", value: value / 100 });
    clearTimeout(letGo.current);
    letGo.current = window.setTimeout(() => setHeld(null), 700);
  }
  return (
    <Row>
      <State role="status">
        {sending ? (
          state.outputs ? (
            <>
              <span className="word">Sending </span>
              <b>{state.rate} Hz</b>
            </>
          ) : (
            "No output"
          )
        ) : (
          "Not connected"
        )}
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
