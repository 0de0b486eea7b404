import { memo, useState } from "react";
import styled from "styled-components";

import { api, take } from "../../../api/client";
import { useDraft, useEdit } from "../../../api/queries";
import { useRuns } from "../../../api/running";
import { act, useLive } from "../../../live/socket";
import { desk, useDesk } from "../../../state";
import { Button } from "../../../ui/Button";
import { say } from "../../../ui/Toasts";
import { EffectMenu, type WholeEffect } from "../shelf/EffectMenu";
import { KeepSheet } from "./KeepSheet";
import { MoveMenu } from "../shelf/NewEffect";
import { PutOn } from "./PutOn";
import type { Hands } from "./useEditor";

const Row = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  flex: none;
  .name {
    flex: 1;
    min-width: 0;
  }
  h2,
  p {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  h2 {
    font-size: 20px;
    line-height: 1.2;
  }
  p {
    color: var(--quiet);
    font-size: 14px;
    line-height: 1.2;
  }
  @media (max-width: 1180px) {
    gap: 4px;
    button {
      padding: 0 8px;
    }
  }
`;

interface Props {
  effect: WholeEffect;
  editor: Hands;
  /** On which heads it is seen. */
  heads: string[];
  runKey: string | null;
}

function Title({ effect, editor, heads, runKey }: Props) {
  const [naming, setNaming] = useState(false);
  const [putting, setPutting] = useState(false);
  const selection = useDesk((state) => state.selection);
  const { data: draft } = useDraft();
  const stopped = useLive(({ state }) => !!runKey && !!state?.stopped.includes(runKey));
  const inDraft = runKey?.startsWith("draft:")
    ? draft?.effects.find((one) => `draft:${one.id}` === runKey)
    : undefined;
  const apply = useEdit(async () => {
    const made = await take(
      api.POST("/api/draft/effects", { body: { effect_id: effect.id, heads: selection } }),
    );
    desk.open(effect.id, `draft:${made.id}`);
  });
  const remove = useEdit(async (id: number) => {
    await take(api.DELETE("/api/draft/effects/{draft_id}", { params: { path: { draft_id: id } } }));
    useDesk.setState({ effect: effect.kept ? { id: effect.id, key: null } : null });
  });
  const ownCopy = useEdit(async () => {
    const copy = await take(
      api.POST("/api/effects/{effect_id}/own-copy", {
        params: { path: { effect_id: effect.id } },
        body: { key: runKey! },
      }),
    );
    desk.open(copy.id, runKey);
    say(`${copy.name} is a copy for this use alone; the others keep ${effect.name}.`, "done");
  });
  const shared = effect.uses.length > 1 && runKey !== null && /^(draft|control):/.test(runKey);
  const runs = useRuns(effect.id);
  const where = effect.uses.length ? `on ${effect.uses.join(", ")}` : "used nowhere yet";
  return (
    <Row>
      <div className="name">
        <h2 title={effect.name}>{effect.name}</h2>
        <p>
          {effect.kept ? "Kept" : "Not kept yet"}, {where}
          {effect.uses.length > 1 && `. A change changes all ${effect.uses.length}`}
          {runs.length > 0 && `. Runs now on ${runs.map((one) => one.words).join("; ")}`}
        </p>
      </div>
      {shared && <Button onPress={() => ownCopy.mutate(undefined)}>Make its own copy</Button>}
      {stopped && runKey && <Button onPress={() => act({ do: "run", key: runKey })}>Run again</Button>}
      {!effect.kept && <Button onPress={() => setNaming(true)}>Keep</Button>}
      <Button isDisabled={!selection.length} onPress={() => apply.mutate(undefined)}>
        Apply
      </Button>
      <Button onPress={() => setPutting(true)}>Put it on</Button>
      <MoveMenu
        label="Add a layer"
        onChoose={(value) => void editor.commit({ operation: "add-layer", path: "", value })}
      />
      <EffectMenu
        effect={effect}
        onRename={() => setNaming(true)}
        onTakeOut={inDraft ? () => remove.mutate(inDraft.id) : null}
      />
      {naming && <KeepSheet effect={effect} isOpen onClose={() => setNaming(false)} />}
      {putting && <PutOn effect={effect} heads={heads} isOpen onClose={() => setPutting(false)} />}
    </Row>
  );
}

const whole = ({ effect: { id, name, kept, favourite, families, uses } }: Props) =>
  JSON.stringify([id, name, kept, favourite, families, uses]);

/** Its name, where it is used, and what can be done with the whole: the same while values in it change. */
export const EffectTitle = memo(
  Title,
  (a, b) => a.editor === b.editor && a.heads === b.heads && a.runKey === b.runKey && whole(a) === whole(b),
);
