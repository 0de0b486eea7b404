import { useEffect, useRef } from "react";
import styled from "styled-components";

import { onEveryFrame } from "../live/loop";
import { act, runningOf, useLivePart } from "../live/socket";
import { desk } from "../state";
import { ActionMenu } from "../ui/ActionMenu";
import { Button } from "../ui/Button";
import { ActionsChip } from "./ActionsChip";
import { AdjustTools } from "./AdjustTools";
import { Chip } from "./Chip";
import { liveWords } from "./liveWords";
import { LookChips } from "./LookChips";
import { PixelChips } from "./PixelChips";
import { nothingRuns } from "./nothingRuns";
import { RecordingChip } from "./RecordingChip";
import { SongChip } from "./SongChip";
import { SpecialChip } from "./SpecialChip";
import { StandInChips } from "./StandInChips";
import { TwoColoursChip } from "./TwoColoursChip";
import { ListChip } from "./ListChip";

const Bar = styled.footer`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 12px;
  border-top: 1px solid var(--line);
  min-height: 56px;
  flex: none;
  @media (max-height: 780px) {
    padding: 2px 12px;
    min-height: 47px;
  }
`;
const Title = styled.span`
  color: var(--quiet);
  white-space: nowrap;
`;
const Trace = styled.canvas`
  width: 36px;
  height: 24px;
  margin-left: 8px;
  flex: none;
`;
const Chips = styled.div`
  display: flex;
  gap: 8px;
  flex: 1;
  min-width: 0;
  overflow-x: auto;
  align-items: center;
`;
const KINDS = [
  { family: "intensity", text: "Stop intensity effects" },
  { family: "position", text: "Stop movement" },
  { family: "colour", text: "Stop colour effects" },
  { family: "beam", text: "Stop beam effects" },
];
const SAMPLES = 36;
const TRACE_MS = 100;

/** A small live trace: what the first light that it moves does, over the last seconds. */
function LiveTrace({ runKey }: { runKey: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const past = useRef<number[]>([]);
  useEffect(() => {
    const element = canvas.current!;
    const context = element.getContext("2d")!;
    let before = -1;
    return onEveryFrame((now) => {
      if (now - before < TRACE_MS) return;
      before = now;
      const running = runningOf(runKey);
      if (running) past.current.push(running.value);
      past.current = past.current.slice(-SAMPLES);
      context.clearRect(0, 0, SAMPLES * 2, 48);
      context.strokeStyle = getComputedStyle(element).color; // of the theme as it is now
      context.lineWidth = 2;
      context.beginPath();
      past.current.forEach((value, n) =>
        context.lineTo((SAMPLES - past.current.length + n) * 2, 45 - value * 42),
      );
      context.stroke();
    });
  }, [runKey]);
  return <Trace ref={canvas} width={SAMPLES * 2} height={48} aria-hidden="true" />;
}

/** One chip for each thing that runs, and where it came from. Nothing runs that is not here. */
export function NowRibbon() {
  const running = useLivePart(
    (state) =>
      state?.running.map(({ key, effect_id, name, source, level, stopping, depth = 1, speed = 1 }) => ({
        key,
        effect_id,
        name,
        source,
        level,
        stopping,
        depth,
        speed,
      })) ?? null,
  );
  const lists = useLivePart((state) => state?.lists?.filter((one) => one.cue !== null) ?? null);
  const actions = useLivePart((state) => state?.actions ?? null);
  const specials = useLivePart((state) => state?.specials?.filter((one) => one.phase !== "off") ?? null);
  const songs = useLivePart(
    (state) => state?.songs?.map((one) => ({ ...one, position: 0, beat: 0, bpm: 0, taken: 0 })) ?? null,
  );
  const isQuiet = useLivePart(nothingRuns);
  return (
    <Bar aria-label="Now running">
      <Title>Running</Title>
      <Chips>
        {songs?.map((told) => (
          <SongChip key={`${told.timeline} ${told.leaving}`} told={told} />
        ))}
        {specials?.map((told) => (
          <SpecialChip key={told.id} told={told} />
        ))}
        <RecordingChip />
        <StandInChips />
        <LookChips />
        <PixelChips />
        {actions?.map((told) => (
          <ActionsChip key={told.id} told={told} />
        ))}
        {lists?.map((told) => (
          <ListChip key={told.id} told={told} />
        ))}
        {running?.map((chip) => (
          <Chip
            key={chip.key}
            name={chip.name}
            picture={<LiveTrace runKey={chip.key} />}
            from={
              <>
                {chip.source}
                {chip.level < 1 ? ` · ${Math.round(chip.level * 100)} %` : ""}
                {chip.stopping ? " · fading out" : ""}
                <b>{liveWords(chip.depth, chip.speed)}</b>
              </>
            }
            isFading={chip.stopping}
            onOpen={() => {
              desk.open(chip.effect_id, chip.key);
              desk.show("effects");
            }}
            tools={!chip.stopping && <AdjustTools running={chip} />}
            stop={{ label: `Stop ${chip.name}`, does: () => act({ do: "stop", key: chip.key }) }}
          />
        ))}
        <TwoColoursChip />
        {isQuiet && (
          <span>Nothing runs. Press go in Cues, raise a fader in Busk, or start an effect in Effects.</span>
        )}
      </Chips>
      <Button isDisabled={!running?.length} onPress={() => act({ do: "stop-all" })}>
        Stop all effects
      </Button>
      <ActionMenu
        label="Ways home"
        onAction={(id) =>
          act(id === "release" ? { do: "release-all", seconds: 2 } : { do: "stop-all", family: id })
        }
        actions={[
          ...KINDS.map(({ family, text }) => ({ id: family, text, disabled: !running?.length })),
          { id: "release", text: "Release everything in 2 s (what is protected stays)" },
        ]}
      />
    </Bar>
  );
}
