import styled from "styled-components";

import { lookEdits, useOverlaysTold, type Look, type LookSource } from "../../../api/looks";
import { act } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Fader } from "../../../ui/Fader";
import { say } from "../../../ui/Toasts";
import { movedBy } from "../../busk/bank/order";
import { usePutOn } from "./usePutOn";

const Line = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 40px;
  &[data-over] {
    grid-template-columns: minmax(0, 1fr) 84px 40px;
  }
  gap: 6px;
  align-items: center;
  min-height: 46px;
  border-top: 1px solid var(--line);
  b {
    font-weight: 600;
  }
  small {
    display: block;
    color: var(--quiet);
    font-size: 13px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  i {
    font-style: normal;
    color: var(--quiet);
  }
  &[data-over] > :nth-child(2) {
    height: 36px;
  }
`;
const amount = (seconds: number) => `${Math.round(seconds * 10) / 10} s`;
const ALL: Omit<LookSource, "source"> = { families: null, heads: null, effects: true };

interface Props {
  look: Look;
  looks: Look[];
  onRename: () => void;
}

/** A kept look, or an overlay with its fader, and what can be done with it. */
export function LookLine({ look, looks, onRename }: Props) {
  const told = useOverlaysTold()?.find((one) => one.id === look.id);
  const putOn = usePutOn();
  const move = (by: 1 | -1) =>
    void lookEdits.order(
      movedBy(
        looks.map((one) => one.id),
        look.id,
        by,
      ),
    );
  async function put(mode: "fader" | "latch" | "flash") {
    const where = await putOn(look.id, look.name, mode);
    if (where) say(`${look.name} is on ${where}.`, "done");
  }
  const actions: Record<string, () => unknown> = {
    fader: () => put("fader"),
    latch: () => put("latch"),
    flash: () => put("flash"),
    draft: () => lookEdits.record(look.id, { source: "draft", ...ALL }),
    stage: () => lookEdits.record(look.id, { source: "stage", ...ALL }),
    rename: onRename,
    over: () => lookEdits.change(look.id, { over: !look.over }),
    up: () => move(1),
    down: () => move(-1),
    delete: () => lookEdits.remove(look.id),
  };
  return (
    <Line data-over={look.over || undefined}>
      <div>
        <b>{look.name}</b> <i>{look.over ? "overlay" : "look"}</i>
        <small title={look.content}>
          {amount(look.in_s)} in, {amount(look.out_s)} out · {look.content}
        </small>
      </div>
      {look.over && (
        <Fader
          label={`Mix of ${look.name}`}
          value={Math.round((told?.level ?? 0) * 100)}
          words={(value) => `${value} %`}
          onMove={(value) => act({ do: "overlay-level", overlay: look.id, value: value / 100 })}
        />
      )}
      <ActionMenu
        label={look.name}
        onAction={(id) => void actions[id]?.()}
        actions={[
          { id: "fader", text: "Put it on a fader" },
          { id: "latch", text: "Put it on a button, on and off" },
          { id: "flash", text: "Put it on a button, while held" },
          { id: "draft", text: "Record it anew, of what is set by hand" },
          { id: "stage", text: "Record it anew, of what is on stage" },
          { id: "rename", text: "Rename it" },
          { id: "over", text: look.over ? "Make it a plain look" : "Make it an overlay" },
          look.over && { id: "up", text: "Lay it over the next one" },
          look.over && { id: "down", text: "Lay it under the one before" },
          { id: "delete", text: "Delete it" },
        ]}
      />
    </Line>
  );
}
