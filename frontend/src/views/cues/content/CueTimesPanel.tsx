import { Fragment } from "react";
import styled from "styled-components";

import { useCueEdits, type CueContent, type CueList } from "../../../api/cues";
import type { Schemas } from "../../../api/client";
import { useTempos } from "../../../live/socket";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { TextField } from "../../../ui/TextField";
import { Tick } from "../../../ui/Tick";
import { FAMILIES, FAMILY_TITLES, timesOf, type Family } from "../cues";
import { Committed } from "./Committed";
import { SeenMoves } from "./SeenMoves";

const Form = styled.div`
  display: grid;
  gap: 12px;
  padding-top: 4px;
`;
const Pair = styled.div`
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 10px;
`;
const Table = styled.div`
  display: grid;
  grid-template-columns: 66px repeat(3, minmax(0, 1fr));
  gap: 4px 6px;
  align-items: center;
  input {
    width: 2.2em;
    padding-left: 4px;
  }
  > span {
    color: var(--quiet);
    font-size: 14px;
  }
  > b {
    font-weight: 500;
  }
`;

const STARTS: { id: string; text: string }[] = [
  { id: "go", text: "by go" },
  { id: "with", text: "with the one before" },
  { id: "after", text: "after the one before" },
  { id: "beat", text: "next beat" },
  { id: "bar", text: "next bar" },
];
const EASES = [
  { id: "linear", text: "linear" },
  { id: "smooth", text: "smooth" },
  { id: "slow-start", text: "slow start" },
  { id: "slow-end", text: "slow end" },
];
const WAYS = [
  { id: "", text: "the palette's" },
  { id: "rgb", text: "RGB" },
  { id: "cmy", text: "CMY" },
  { id: "hsv-short", text: "hue, short way" },
  { id: "hsv-long", text: "hue, long way" },
  { id: "oklch", text: "even to the eye" },
];

/** Number, name, times in figures, what starts a cue, and how it acts. */
export function CueTimesPanel({ list, cue }: { list: CueList; cue: CueContent }) {
  const edits = useCueEdits();
  const tempos = useTempos();
  const change = (body: Schemas["CueChange"]) => void edits.change(cue.id, body);
  const times = timesOf(cue.times);
  const kind = cue.trigger.kind ?? "go";
  const setTime = (family: Family, part: string, value: number) =>
    change({ times: { ...times, [family]: { ...times[family], [part]: value } } });
  const field = (family: Family, part: string, label: string, value: number) => (
    <NumberField
      key={part}
      label={`${FAMILY_TITLES[family]}, ${label}`}
      hideLabel
      unit="s"
      minValue={0}
      maxValue={3600}
      value={value}
      onChange={(to) => setTime(family, part, to || 0)}
    />
  );
  const first = list.rows[0]?.id === cue.id;
  return (
    <Form>
      <Pair>
        <NumberField
          label="Number"
          minValue={0.001}
          maxValue={99_999}
          formatOptions={{ maximumFractionDigits: 3, useGrouping: false }}
          value={cue.number}
          onChange={(number) => change({ number })}
        />
        <Committed key={`name ${cue.id} ${cue.name}`} value={cue.name} onCommit={(name) => change({ name })}>
          {(props) => <TextField label="Name" {...props} />}
        </Committed>
      </Pair>
      <Committed key={`note ${cue.id} ${cue.note}`} value={cue.note} onCommit={(note) => change({ note })}>
        {(props) => <TextField label="Note" {...props} />}
      </Committed>
      <Pair>
        <NumberField
          label="Wait"
          unit="s"
          minValue={0}
          maxValue={3600}
          isDisabled={kind !== "with" && kind !== "after"}
          value={cue.trigger.wait ?? 0}
          onChange={(wait) => change({ trigger: { ...cue.trigger, wait: wait || 0 } })}
        />
        <Choice
          label="Starts"
          value={kind}
          isDisabled={first}
          options={STARTS.map(({ id, text }) => ({
            id,
            text: id === "beat" || id === "bar" ? `${text}, ${tempos?.[0]?.name ?? "by tempo"}` : text,
          }))}
          onChange={(key) =>
            change({ trigger: { ...cue.trigger, kind: key as Schemas["CueTrigger"]["kind"] } })
          }
        />
      </Pair>
      <Table role="group" aria-label="Times">
        <span />
        <span>Delay</span>
        <span>Fade up</span>
        <span>down</span>
        {FAMILIES.map((family) => (
          <Fragment key={family}>
            <b>{FAMILY_TITLES[family]}</b>
            {field(family, "delay", "delay", times[family].delay)}
            {family === "intensity" ? (
              <>
                {field(family, "up", "fade up", times.intensity.up)}
                {field(family, "down", "fade down", times.intensity.down)}
              </>
            ) : (
              <>
                {field(family, "fade", "fade", times[family].fade)}
                <span />
              </>
            )}
          </Fragment>
        ))}
      </Table>
      <Pair style={{ gridTemplateColumns: "1fr 1fr" }}>
        <Choice
          label="Ease"
          value={cue.ease}
          options={EASES}
          onChange={(key) => change({ ease: String(key) })}
        />
        <Choice
          label="Way of colours"
          value={cue.space}
          options={WAYS}
          onChange={(key) => change({ space: String(key) })}
        />
      </Pair>
      <div>
        <Tick isSelected={cue.everything_else_out} onChange={(on) => change({ everything_else_out: on })}>
          Everything else goes out
        </Tick>
        <Tick isSelected={cue.states_everything} onChange={(on) => change({ states_everything: on })}>
          States everything that is carried on
        </Tick>
        <Tick isSelected={cue.takes_over} onChange={(on) => change({ takes_over: on })}>
          Takes over from effects of other lists
        </Tick>
        <Tick isSelected={cue.dark_moves} onChange={(on) => change({ dark_moves: on })}>
          Lights are prepared for it in the dark
        </Tick>
        {cue.dark_moves && (
          <SeenMoves heads={cue.seen_moves} onChange={(seen) => change({ seen_moves: seen })} />
        )}
      </div>
    </Form>
  );
}
