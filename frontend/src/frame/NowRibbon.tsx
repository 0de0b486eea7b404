import styled from "styled-components";

import { useSongsTold } from "../api/timelines";
import { act, useLivePart } from "../live/socket";
import { ActionMenu } from "../ui/ActionMenu";
import { Button } from "../ui/Button";
import { ActionsChip } from "./ActionsChip";
import { LookChips } from "./LookChips";
import { PixelChips } from "./PixelChips";
import { nothingRuns } from "./nothingRuns";
import { RecordingChip } from "./RecordingChip";
import { RunningChip } from "./RunningChip";
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

/** One chip for each thing that runs, and where it came from. Nothing runs that is not here. */
export function NowRibbon() {
  const running = useLivePart((state) => state?.running.map((one) => one.key) ?? null);
  const lists = useLivePart((state) => state?.lists?.filter((one) => one.cue !== null) ?? null);
  const actions = useLivePart((state) => state?.actions ?? null);
  const specials = useLivePart((state) => state?.specials?.filter((one) => one.phase !== "off") ?? null);
  const songs = useSongsTold();
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
        {running?.map((key) => (
          <RunningChip key={key} runKey={key} />
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
