import styled from "styled-components";

import { useList, type Told } from "../api/cues";
import { useEveryFrame } from "../live/clock";
import { act } from "../live/socket";
import { desk } from "../state";
import { Chip } from "./Chip";

const RELEASE_S = 2;
/** How far its cue has come, from the bottom up. */
const Way = styled.span`
  --come: 1;
  width: 6px;
  height: 26px;
  margin-left: 8px;
  border: 1px solid var(--edge);
  background: linear-gradient(var(--bone), var(--bone)) bottom / 100% calc(var(--come) * 100%) no-repeat;
`;

/** A cue list that is on a cue. */
export function ListChip({ told }: { told: Told }) {
  const { data: list } = useList(told.id);
  const way = useEveryFrame<HTMLSpanElement>((element, now) => {
    const lasts = told.arrives_at - told.went_at;
    const share = lasts > 0 ? (Math.min(told.paused_at ?? now, now) - told.went_at) / lasts : 1;
    element.style.setProperty("--come", String(Math.max(0, Math.min(1, share))));
  });
  const row = list?.rows.find((one) => one.id === told.cue);
  if (!list) return null;
  const level = told.level < 1 ? ` · ${Math.round(told.level * 100)} %` : "";
  return (
    <Chip
      name={list.name}
      picture={<Way ref={way} aria-hidden="true" />}
      from={`${row ? `cue ${row.number} · ${row.name}` : "a cue"}${told.paused_at !== null ? " · paused" : level}`}
      onOpen={() => desk.openList(list.id, told.cue)}
      stop={{
        label: `Release ${list.name}`,
        does: () => act({ do: "release", list: list.id, seconds: RELEASE_S }),
      }}
    />
  );
}
