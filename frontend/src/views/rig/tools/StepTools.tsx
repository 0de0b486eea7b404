import { ChevronLeft, ChevronRight } from "lucide-react";
import { useEffect } from "react";
import styled from "styled-components";

import { useLivePart, useTempos } from "../../../live/socket";
import { useDesk } from "../../../state";
import { Button, Toggle } from "../../../ui/Button";
import { endShowing, show, shownSteps } from "./showing";

const Row = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  .at {
    font-family: var(--numbers);
    min-width: 8ch;
    font-size: 14px;
    white-space: nowrap;
    text-align: center;
  }
  .icon {
    padding: 0;
    min-width: 32px;
  }
`;

/** Show the selection on stage: all of it, or head by head, by hand or in tempo. It ends when the view is left. */
export function StepTools() {
  const selection = useDesk((state) => state.selection);
  const tempos = useTempos();
  const shown = useLivePart((state) => state?.shown ?? null);
  const each = selection.map((key) => [key]);
  const steps = shown !== null && shown.count > 1;
  const stop = () => show([]);
  useEffect(() => endShowing, []);
  /** What is stepped through now; what another page began cannot be taken on: then the selection. */
  const through = () => (shownSteps().length ? shownSteps() : each);
  const go = (on: number) => {
    const count = through().length;
    show(through(), ((((shown?.at ?? 0) + on) % count) + count) % count);
  };
  return (
    <Row role="group" aria-label="Show on stage">
      {!steps && (
        <Toggle
          data-variant="small"
          isDisabled={!selection.length && !shown}
          isSelected={shown !== null}
          onChange={(on) => (on ? show([selection]) : stop())}
        >
          Show on stage
        </Toggle>
      )}
      <Toggle
        data-variant="small"
        isDisabled={selection.length < 2 && !steps}
        isSelected={steps}
        onChange={(on) => (on ? show(each) : stop())}
      >
        Step through
      </Toggle>
      {steps && (
        <>
          <Button data-variant="small" className="icon" aria-label="Previous" onPress={() => go(-1)}>
            <ChevronLeft size={16} aria-hidden="true" />
          </Button>
          <span className="at" aria-live="polite">
            {shown.at + 1} of {shown.count}
          </span>
          <Button data-variant="small" className="icon" aria-label="Next" onPress={() => go(1)}>
            <ChevronRight size={16} aria-hidden="true" />
          </Button>
          <Toggle
            data-variant="small"
            isSelected={shown.plays}
            isDisabled={!tempos?.length}
            onChange={(on) => show(through(), shown.at, on ? tempos![0]!.name : null)}
          >
            In tempo
          </Toggle>
        </>
      )}
    </Row>
  );
}
