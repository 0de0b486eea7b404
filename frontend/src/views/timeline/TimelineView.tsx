import { useEffect, useMemo } from "react";
import styled from "styled-components";

import { songEdits, useSongOnStage, useSongs, useTimeline, type TimelineEvent } from "../../api/timelines";
import { Button } from "../../ui/Button";
import { EventList } from "./list/EventList";
import { EventPanel } from "./list/EventPanel";
import { NewMessage } from "./list/TrackMessage";
import { line, useLine } from "./line";
import { Lines } from "./line/Lines";
import { NewTrack } from "./songs/NewTrack";
import { SongBar } from "./songs/SongBar";
import { useLineKeys } from "./useLineKeys";
import { useSound } from "./useSound";

const Frame = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  height: 100%;
  @media (max-width: 1180px) {
    grid-template-columns: minmax(0, 1fr) 290px;
  }
  > * {
    min-height: 0;
    min-width: 0;
  }
`;
const Left = styled.div`
  display: grid;
  grid-template: auto minmax(0, 1fr) auto / minmax(0, 1fr);
  border-right: 1px solid var(--line);
`;
const Foot = styled.footer`
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 6px 12px;
  border-top: 1px solid var(--line);
  span {
    color: var(--quiet);
    font-size: 14px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;
const Right = styled.aside`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  header {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    padding: 10px 12px 6px;
    span {
      color: var(--quiet);
      font-size: 14px;
    }
  }
`;
const Empty = styled.div`
  padding: 40px 24px;
  display: grid;
  gap: 12px;
  justify-items: start;
  align-content: start;
  max-width: 520px;
`;

/** Songs on a time axis: what plays when, on the line and as a list. */
export function TimelineView() {
  const { data: songs } = useSongs();
  const onStage = useSongOnStage();
  const asked = useLine((state) => state.song);
  const id = songs?.find((one) => one.id === asked)?.id ?? onStage ?? songs?.[0]?.id ?? null;
  const { data: song } = useTimeline(id);
  const chosen = useLine((state) => state.chosen);
  const shapes = useLine((state) => state.shapes);
  useSound(song);
  useLineKeys(song);
  useEffect(() => line.choose([]), [id]);
  const events = useMemo<TimelineEvent[]>(
    () => song?.events.filter((one) => chosen.has(one.id)) ?? [],
    [song, chosen],
  );
  if (songs?.length === 0)
    return (
      <Empty>
        <h2>No song yet</h2>
        <p>
          A song has a length, a beat, its sound, and tracks on which cues, presses and levels lie in time.
          Play it, press along, and the presses are recorded.
        </p>
        <Button
          onPress={() =>
            void songEdits.add("Song 1", {}).then((made) => made && useLine.setState({ song: made.id }))
          }
        >
          New song
        </Button>
      </Empty>
    );
  if (!song || !songs) return null;
  const isArmed = song.tracks.some((one) => one.document.armed);
  const hint = shapes
    ? "Parts and bars are moved: a part, its end, bar 1 with all bars, another with the tempo before it."
    : `${isArmed ? "" : "To record, arm a track: ○. "}Double-click puts an event, drag moves it. Space plays, the wheel zooms.`;
  return (
    <Frame aria-label="Timeline">
      <Left>
        <SongBar song={song} songs={songs} />
        <Lines key={song.id} song={song} />
        <Foot>
          <NewTrack song={song} />
          <span title={hint}>{hint}</span>
        </Foot>
      </Left>
      <Right>
        <header>
          <h2>Events</h2>
          <span>
            {song.events.length}
            {events.length > 0 && `, ${events.length} chosen`}
          </span>
        </header>
        <EventList song={song} />
        <EventPanel song={song} chosen={events} />
        <NewMessage song={song} />
      </Right>
    </Frame>
  );
}
