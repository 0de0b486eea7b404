import styled from "styled-components";

import { useCueEdits, type CueContent, type CueList } from "../../../api/cues";
import type { Schemas } from "../../../api/client";
import { desk } from "../../../state";
import { ActionMenu } from "../../../ui/ActionMenu";

const Section = styled.section`
  margin-top: 14px;
  h3 {
    font-size: 14px;
    font-weight: 600;
    color: var(--quiet);
    border-bottom: 1px solid var(--line);
    padding-bottom: 2px;
  }
`;
const Item = styled.div`
  display: flex;
  align-items: flex-start;
  padding: 5px 0 3px 4px;
  color: var(--quiet);
  p {
    flex: 1;
    min-width: 0;
    line-height: 1.3;
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--quiet);
    overflow: hidden;
    display: -webkit-box;
    -webkit-line-clamp: 2;
    -webkit-box-orient: vertical;
  }
  &[data-changed] b {
    color: var(--bone);
    font-weight: 650;
  }
  b {
    font-weight: 400;
  }
`;

type Effect = Schemas["CueEffectView"];
const DEPTHS = [100, 75, 50, 25];

function stateWords(one: Effect): string {
  const ends = one.ends !== null ? `, to cue ${one.ends}` : ", runs on";
  if (one.state === "stops") return `stops here (from cue ${one.began})`;
  if (one.state === "starts") return `starts here${ends}`;
  const depth = one.state === "changes" ? `, here to ${Math.round(one.depth * 100)} %` : "";
  return `from cue ${one.began}${ends}${depth}`;
}

/** Effects that run in a cue: which it starts and stops, and where the others come from. */
export function CueEffects({ list, cue }: { list: CueList; cue: CueContent }) {
  const edits = useCueEdits();
  if (!cue.effects.length) return null;
  const cues = new Map(list.rows.map((row) => [row.number, row.id]));
  function does(one: Effect, id: string) {
    if (id === "open") {
      desk.open(one.effect_id, `list:${list.id}:${one.thread}`);
      desk.show("effects");
    }
    if (id === "stop") void edits.thread(list.id, one.thread, { begins: cues.get(one.began)!, ends: cue.id });
    if (id === "on") void edits.thread(list.id, one.thread, { begins: cues.get(one.began)!, ends: null });
    if (id.startsWith("depth"))
      void edits.effect(cue.id, {
        do: "change",
        thread: one.thread,
        depth: Number(id.slice(6)) / 100,
        speed: one.speed,
        heads: [],
      });
  }
  return (
    <Section aria-label="Effects that run">
      <h3>Effects that run</h3>
      {cue.effects.map((one) => (
        <Item key={one.thread} data-changed={one.state !== "runs" || undefined}>
          <p>
            <b>
              {one.name}: {stateWords(one)}
            </b>
            <small title={one.sentence}>{one.sentence}</small>
          </p>
          <ActionMenu
            label={one.name}
            onAction={(id) => does(one, id)}
            actions={[
              { id: "open", text: "Open the effect" },
              (one.state === "runs" || one.state === "changes") && { id: "stop", text: "Stops here" },
              one.ends !== null && { id: "on", text: "Runs on to the end" },
              ...(one.state === "runs" || one.state === "changes"
                ? DEPTHS.map((depth) => ({ id: `depth ${depth}`, text: `From here on at ${depth} % depth` }))
                : []),
            ]}
          />
        </Item>
      ))}
    </Section>
  );
}
