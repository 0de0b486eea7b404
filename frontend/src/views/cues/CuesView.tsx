import { useState } from "react";
import styled from "styled-components";

import { useChosenList, useCueEdits, useList, useTold } from "../../api/cues";
import { useDesk } from "../../state";
import { Button } from "../../ui/Button";
import { CueContentPanel } from "./content/CueContentPanel";
import { GoBar } from "./GoBar";
import { ListColumn } from "./list/ListColumn";
import { RecordSheet } from "./list/RecordSheet";
import { UpdateSheet } from "./list/UpdateSheet";
import { CueTable } from "./list/CueTable";

const Frame = styled.section`
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) 340px;
  height: 100%;
  > * {
    min-height: 0;
    min-width: 0;
  }
  @media (max-width: 1180px) {
    grid-template-columns: 150px minmax(0, 1fr) 290px;
  }
`;
const Middle = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  border-left: 1px solid var(--line);
  border-right: 1px solid var(--line);
`;
const Head = styled.header`
  display: flex;
  align-items: baseline;
  gap: 12px;
  padding: 8px 12px 6px;
  h2 {
    font-size: 19px;
    white-space: nowrap;
  }
  span {
    color: var(--quiet);
    flex: 1;
    min-width: 0;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  button {
    align-self: center;
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

/** Cue lists: their cues in time, and what is in each. */
export function CuesView() {
  const id = useChosenList();
  const { data: list } = useList(id);
  const told = useTold(id);
  const chosen = useDesk((state) => state.cue);
  const [recording, setRecording] = useState(false);
  const [updating, setUpdating] = useState(false);
  const edits = useCueEdits();
  const cue =
    list?.rows.find((row) => row.id === chosen) ??
    list?.rows.find((row) => row.id === told?.cue) ??
    list?.rows[0];
  return (
    <Frame aria-label="Cues">
      <ListColumn chosen={id} />
      <Middle>
        {list && (
          <Head>
            <h2>{list.name}</h2>
            <span>
              {list.rows.length} cues · {list.words}
              {list.never_rests && " · would go round in no time, so it stops at the end"}
            </span>
            <Button data-variant="small" onPress={() => setRecording(true)}>
              Record …
            </Button>
            <Button data-variant="small" onPress={() => setUpdating(true)}>
              Update …
            </Button>
          </Head>
        )}
        {list && list.rows.length > 0 && <CueTable list={list} told={told} chosen={cue?.id ?? null} />}
        {list?.rows.length === 0 && (
          <Empty>
            <h3>No cue yet</h3>
            <p>
              Set a look by hand (in Look), let effects run on it (in Effects), then record it here: the first
              cue keeps all of it, each later one what has changed.
            </p>
            <Button onPress={() => setRecording(true)}>Record the first cue …</Button>
          </Empty>
        )}
        {list === undefined && id === null && (
          <Empty>
            <h3>No cue list yet</h3>
            <p>A list holds looks and effects in an order: one for each song is a good start.</p>
            <Button onPress={() => void edits.addList("Song 1")}>New list</Button>
          </Empty>
        )}
        {list && <GoBar list={list} told={told} />}
      </Middle>
      {cue && list ? <CueContentPanel list={list} cueId={cue.id} told={told} /> : <div />}
      {list && recording && (
        <RecordSheet list={list} cue={cue?.id ?? null} onClose={() => setRecording(false)} />
      )}
      {updating && <UpdateSheet onClose={() => setUpdating(false)} />}
    </Frame>
  );
}
