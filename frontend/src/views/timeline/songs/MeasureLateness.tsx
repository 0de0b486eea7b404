import { useState } from "react";
import styled from "styled-components";

import { tell } from "../../../api/queries";
import { useTimelineEdits, type Timeline } from "../../../api/timelines";
import { act } from "../../../live/socket";
import { Button } from "../../../ui/Button";
import { positionNow } from "../line";

const Line = styled.div`
  display: flex;
  gap: 10px;
  align-items: center;
  span {
    color: var(--quiet);
  }
`;
const TAPS = 8;
/** Hands that wander more say nothing. */
const UNEVEN_S = 0.06;

interface Props {
  song: Timeline;
  /** How late hands are, s. */
  onMeasured: (late: number) => void;
}

/** How late hands are, measured by tapping along with the song. */
export function MeasureLateness({ song, onMeasured }: Props) {
  const edits = useTimelineEdits(song.id);
  const [taps, setTaps] = useState<number[] | null>(null);
  const [found, setFound] = useState("");
  async function tap() {
    const p = positionNow(song.id, song.document.length_s ?? 0);
    const now = p === null ? [] : [...(taps ?? []), p];
    setTaps(now);
    if (now.length < TAPS) return;
    try {
      const { late_s, wanders_s } = await edits.lateness(now);
      const isEven = wanders_s <= UNEVEN_S;
      if (isEven) onMeasured(late_s);
      const ms = Math.round(Math.abs(late_s) * 1000);
      setFound(
        isEven
          ? `${now.length} taps: ${ms} ms ${late_s < 0 ? "early" : "late"}, within ${Math.round(wanders_s * 1000)} ms`
          : `${now.length} taps are too uneven to say (${Math.round(wanders_s * 1000)} ms): tap on, once on each beat.`,
      );
    } catch (error) {
      tell(error);
    }
  }
  function begin() {
    setTaps([]);
    setFound("");
    act({ do: "play-song", timeline: song.id, on: true });
  }
  return (
    <Line>
      {taps === null ? (
        <Button data-variant="small" onPress={begin}>
          Measure how late your hands are …
        </Button>
      ) : (
        <>
          <Button onPressStart={() => void tap()}>Tap on each beat</Button>
          <span role="status">
            {found || `The song plays: tap on each beat that you hear, ${TAPS - taps.length} more.`}
          </span>
        </>
      )}
    </Line>
  );
}
