import { useEffect, useState } from "react";
import { TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import { useCue, type CueList, type Told } from "../../../api/cues";
import { act, useLive, useLivePart } from "../../../live/socket";
import { Button, Toggle } from "../../../ui/Button";
import { TabName, TabRow } from "../../../ui/Tabs";
import { ContentGroups } from "./ContentGroups";
import { CueEffects } from "./CueEffects";
import { CueMessages } from "./CueMessages";
import { CuePixels } from "./CuePixels";
import { CueTimesPanel } from "./CueTimesPanel";
import { DifferencesSheet } from "./DifferencesSheet";
import { MovesNote } from "./MovesNote";

const Panel = styled.aside`
  display: flex;
  flex-direction: column;
  header {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 8px;
    align-items: start;
    padding: 10px 14px 6px;
  }
  header p {
    grid-column: 1 / 3;
    color: var(--quiet);
    font-size: 14px;
  }
  h2 {
    font-size: 17px;
  }
`;
const Body = styled(TabPanel)`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 8px 14px 14px;
  outline-offset: -2px;
`;
const Frame = styled(Tabs)`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  [role="tablist"] {
    padding: 0 10px;
    align-items: center;
  }
`;

const Tools = styled.div`
  display: flex;
  gap: 6px;
`;

interface Props {
  list: CueList;
  cueId: number;
  told: Told | null;
}

/** What holds in a cue, and where it comes from. */
export function CueContentPanel({ list, cueId, told }: Props) {
  const { data: cue } = useCue(cueId);
  const [comparing, setComparing] = useState(false);
  const looked = useLivePart((state) => state?.looked_at ?? null);
  const ahead = looked === cueId;
  const listId = list.id;
  useEffect(() => {
    // another cue is chosen while one is seen ahead: that one is seen instead
    const now = useLive.getState().state?.looked_at ?? null;
    if (now !== null && now !== cueId) act({ do: "look-at", list: listId, cue: cueId });
  }, [listId, cueId]);
  const changed = cue?.effects.filter((one) => one.state !== "runs").length ?? 0;
  if (!cue) return <Panel aria-label="Cue" />;
  return (
    <Panel aria-label="Cue">
      <header>
        <h2>
          {cue.number} · {cue.name || "Unnamed"}
        </h2>
        <Tools>
          <Toggle
            data-variant="small"
            aria-label="See it blind"
            isSelected={ahead}
            onChange={(on) => act({ do: "look-at", list: list.id, cue: on ? cue.id : null })}
          >
            Blind
          </Toggle>
          <Button data-variant="small" aria-label="Compare with the stage" onPress={() => setComparing(true)}>
            Compare …
          </Button>
        </Tools>
        <p>
          changes {cue.changes.toLocaleString("en")} {cue.changes === 1 ? "value" : "values"}
          {changed > 0 && ` and ${changed} ${changed === 1 ? "effect" : "effects"}`}; carries on{" "}
          {cue.carried.toLocaleString("en")}
        </p>
      </header>
      <Frame>
        <TabRow aria-label="Parts of the cue">
          <TabName id="content">Content</TabName>
          <TabName id="times">Times and more</TabName>
        </TabRow>
        <Body id="content">
          {cue.note && <p>{cue.note}</p>}
          <ContentGroups cue={cue} />
          <CueEffects list={list} cue={cue} />
          <CuePixels cue={cue} />
          <CueMessages cue={cue} />
          <MovesNote cue={cue} />
        </Body>
        <Body id="times">
          <CueTimesPanel list={list} cue={cue} />
        </Body>
      </Frame>
      {comparing && (
        <DifferencesSheet cue={cue} onStage={told?.cue === cue.id} onClose={() => setComparing(false)} />
      )}
    </Panel>
  );
}
