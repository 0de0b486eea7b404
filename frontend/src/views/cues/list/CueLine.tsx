import { CornerDownRight, MoveDiagonal2 } from "lucide-react";
import styled from "styled-components";

import { useCueEdits, type CueList, type CueRow, type Told } from "../../../api/cues";
import { useLiveText } from "../../../live/clock";
import { act } from "../../../live/socket";
import { desk, useDesk } from "../../../state";
import { ActionMenu } from "../../../ui/ActionMenu";
import { ROW_PX, seconds } from "../cues";
import { TimeBars } from "./TimeBars";

const Line = styled.div`
  position: absolute;
  left: 0;
  right: 0;
  height: ${ROW_PX}px;
  display: grid;
  grid-template-columns: var(--columns);
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding-right: 10px;
  cursor: default;
  &[data-chosen] {
    background: var(--raised);
  }
  &[data-on]::before {
    content: "";
    position: absolute;
    left: 0;
    top: 0;
    bottom: 0;
    width: 4px;
    background: var(--bone);
  }
  &[data-next]::before {
    content: "";
    position: absolute;
    left: 0;
    top: 12px;
    bottom: 12px;
    width: 4px;
    border: 1px solid var(--bone);
  }
`;
const Number = styled.span`
  font: 600 15px var(--numbers);
  padding-left: 12px;
  display: flex;
  align-items: center;
  gap: 2px;
`;
const Name = styled.span`
  min-width: 0;
  display: flex;
  align-items: center;
  .words {
    min-width: 0;
    flex: 1;
    line-height: 1.2;
    overflow: hidden;
  }
  .words > * {
    display: block;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  small {
    color: var(--quiet);
    font-size: 13px;
  }
  small strong {
    color: var(--bone);
    font-weight: 600;
  }
  button {
    min-height: 40px;
  }
`;
const Starts = styled.span`
  color: var(--quiet);
  font-size: 14px;
  line-height: 1.15;
  display: flex;
  align-items: center;
  gap: 4px;
  svg {
    flex: none;
  }
`;

interface Props {
  list: CueList;
  row: CueRow;
  top: number;
  told: Told | null;
  chosen: boolean;
  linked: boolean;
  scale: { end: number };
  barsPx: number;
}

/** What a cue says of itself beneath its name, beside what is live. */
function quietWords(row: CueRow): string {
  const words = [];
  if (row.everything_else_out) words.push("everything else goes out");
  if (row.states_everything) words.push("states everything");
  if (row.sends) words.push(`sends ${row.sends}`);
  if (row.moves.dark)
    words.push(
      `moves in the dark: ${row.moves.dark} ${row.moves.dark === 1 ? "head" : "heads"}, ${seconds(row.moves.seconds)} s`,
    );
  if (row.note) words.push(row.note);
  return words.join(" · ");
}

/** A cue in its list. */
export function CueLine({ list, row, top, told, chosen, linked, scale, barsPx }: Props) {
  const edits = useCueEdits();
  const copied = useDesk((state) => state.copied);
  const on = told?.cue === row.id;
  const next = told?.next === row.id;
  const live = useLiveText<HTMLElement>((now) => {
    if (on && told!.paused_at !== null) return "paused";
    if (on) return told!.arrives_at > now ? `fading, ${seconds(told!.arrives_at - now)} s` : "on stage";
    if (!next) return "";
    const due = told!.follows === row.id && told!.follows_at !== null && told!.paused_at === null;
    if (due) return `comes in ${seconds(Math.max(0, told!.follows_at! - now))} s`;
    return told!.chosen ? "next, chosen" : "next";
  });
  const quiet = quietWords(row);
  const seen = row.moves.seen;
  return (
    <Line
      role="listitem"
      aria-label={`Cue ${row.number} ${row.name}`}
      aria-current={on || undefined}
      style={{ top }}
      data-chosen={chosen || undefined}
      data-on={on || undefined}
      data-next={next || undefined}
      onPointerDown={() => desk.openList(list.id, row.id)}
      onDoubleClick={() => act({ do: "go-to", list: list.id, cue: row.id })}
    >
      <Number>{row.number}</Number>
      <Name>
        <span className="words">
          <span title={row.name}>{row.name || "Unnamed"}</span>
          <small>
            <strong ref={live} />
            {(on || next) && quiet ? " · " : ""}
            {quiet}
            {seen > 0 && (
              <span
                title={
                  row.moves.hidden_by === null
                    ? "No cue before it has these lights dark"
                    : `Cue ${row.moves.hidden_by} has them dark: they could move there`
                }
              >
                {quiet || on || next ? " · " : ""}
                <MoveDiagonal2 size={11} aria-hidden="true" /> moves {seen} {seen === 1 ? "head" : "heads"} in
                view
              </span>
            )}
          </small>
        </span>
        {chosen && (
          <ActionMenu
            label={`Cue ${row.number}`}
            onAction={(id) => {
              if (id === "go") act({ do: "go-to", list: list.id, cue: row.id });
              if (id === "next")
                act({ do: "choose-next", list: list.id, cue: told?.chosen && next ? null : row.id });
              if (id === "copy") useDesk.setState({ copied: [row.id] });
              if (id === "paste") void edits.paste(list.id, copied, row.id);
              if (id === "duplicate") void edits.paste(list.id, [row.id], row.id);
              if (id === "bake")
                desk.bake({
                  kind: "cue",
                  number: row.id,
                  name: `${list.name}, ${row.number} ${row.name}`.trim(),
                });
              if (id === "renumber") void edits.renumber(list.id, { first: 1, step: 1 });
              if (id.startsWith("split"))
                void edits.split(row.id, [id.slice(6) as "intensity" | "position" | "colour" | "beam"]);
              if (id === "delete") void edits.remove(row.id);
            }}
            actions={[
              { id: "go", text: "Go to this cue" },
              { id: "next", text: told?.chosen && next ? "Not next after all" : "Choose as next" },
              { id: "duplicate", text: "Duplicate behind it" },
              { id: "copy", text: "Copy" },
              { id: "paste", text: "Paste behind it", disabled: !copied.length },
              ...row.bars
                .filter(() => row.bars.length > 1)
                .map((bar) => ({
                  id: `split ${bar.family}`,
                  text: `Move its ${bar.family} to a cue of its own`,
                })),
              { id: "bake", text: "Bake for another system …" },
              { id: "renumber", text: "Renumber the list 1, 2, 3 …" },
              { id: "delete", text: "Delete" },
            ]}
          />
        )}
      </Name>
      <Starts>
        {linked && <CornerDownRight size={13} aria-hidden="true" />}
        {row.starts}
      </Starts>
      <TimeBars row={row} end={scale.end} width={barsPx} />
      <span />
    </Line>
  );
}
