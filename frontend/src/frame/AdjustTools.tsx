import { SlidersHorizontal } from "lucide-react";
import { useRef, useState } from "react";
import { Dialog } from "react-aria-components";
import styled from "styled-components";

import { api, take } from "../api/client";
import { refresh, tell } from "../api/queries";
import { act } from "../live/socket";
import { Button } from "../ui/Button";
import { Bubble } from "../ui/Sheet";
import { Slider } from "../ui/Slider";

const Content = styled(Dialog)`
  outline: none;
  display: grid;
  gap: 12px;
  width: 320px;
  p {
    color: var(--quiet);
  }
`;
const Ways = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;
/** Speeds go from a quarter to four times: a slider from −2 to 2 doublings. */
const doublings = (speed: number) => Math.log2(speed);

export interface Running {
  key: string;
  name: string;
  source: string;
  depth: number;
  speed: number;
}

/** The sliders, which stand where the hand has put them; what is live follows at once. */
function Adjusting({ running }: { running: Running }) {
  const { key, name, source } = running;
  const [depth, setDepth] = useState(running.depth);
  const [speed, setSpeed] = useState(running.speed);
  const changed = depth !== 1 || speed !== 1;
  function asItWas() {
    setDepth(1);
    setSpeed(1);
  }
  async function write(into: "effect" | "cue" | "control") {
    try {
      await take(api.POST("/api/running/write-back", { body: { key, into } }));
      asItWas();
    } catch (error) {
      tell(error);
    }
    refresh();
  }
  return (
    <Content aria-label={`Depth and speed of ${name}`}>
      <Slider
        label="Depth"
        minValue={0}
        maxValue={1}
        step={0.01}
        value={depth}
        words={(value) => `${Math.round(value * 100)} % of what it has`}
        onChange={(value) => {
          setDepth(value);
          act({ do: "adjust", key, depth: value });
        }}
      />
      <Slider
        label="Speed"
        minValue={-2}
        maxValue={2}
        step={0.05}
        value={doublings(speed)}
        words={(value) => `${(2 ** value).toFixed(2)} × what it has`}
        onChange={(value) => {
          setSpeed(2 ** value);
          act({ do: "adjust", key, speed: 2 ** value });
        }}
      />
      <p>{changed ? "Changed live only. Write it back into:" : `As ${source} has it.`}</p>
      {changed && (
        <Ways>
          <Button data-variant="small" onPress={() => void write("effect")}>
            the effect
          </Button>
          {key.startsWith("list:") && (
            <Button data-variant="small" onPress={() => void write("cue")}>
              the cue
            </Button>
          )}
          {key.startsWith("control:") && (
            <Button data-variant="small" onPress={() => void write("control")}>
              the control
            </Button>
          )}
          <Button
            data-variant="plain"
            onPress={() => {
              asItWas();
              act({ do: "adjust", key, depth: 1, speed: 1 });
            }}
          >
            As it was
          </Button>
        </Ways>
      )}
    </Content>
  );
}

/** Depth and speed of something that runs, at hand: live only, until it is written back. Chips come and go with every cue:
 * what opens is made when it does. */
export function AdjustTools({ running }: { running: Running }) {
  const [isOpen, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  return (
    <>
      <Button
        ref={button}
        data-variant="plain"
        aria-label={`Depth and speed of ${running.name}`}
        aria-haspopup="dialog"
        aria-expanded={isOpen}
        onPress={() => setOpen(true)}
      >
        <SlidersHorizontal size={14} aria-hidden="true" />
      </Button>
      {isOpen && (
        <Bubble triggerRef={button} isOpen onOpenChange={setOpen} placement="top">
          <Adjusting running={running} />
        </Bubble>
      )}
    </>
  );
}
