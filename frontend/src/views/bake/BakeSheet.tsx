import { useState } from "react";
import styled from "styled-components";

import { bakes, type BakeAsk, type Bakeable, type BakeFormat } from "../../api/bakes";
import { useShow } from "../../api/queries";
import { desk, useDesk } from "../../state";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { HeadsChoice, type OnHeads } from "../../ui/HeadsChoice";
import { NumberField } from "../../ui/NumberField";
import { Progress } from "../../ui/Progress";
import { Scroller } from "../../ui/Scroller";
import { Ending, Sheet } from "../../ui/Sheet";
import { BakeAttributes } from "./BakeAttributes";
import { FORMATS } from "./bakeWords";
import { StepCurve } from "./StepCurve";
import { useBake } from "./useBake";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: end;
  input {
    width: 4.6em;
  }
`;
const Content = styled(Scroller)`
  width: min(760px, 86vw);
  max-height: 43vh;
  p {
    padding: 6px 0;
  }
`;
const WHAT = { effect: "effect", cue: "cue", map: "pixel map", song: "song" };
const LENGTHS = [
  { id: "cycle", text: "one closing cycle" },
  { id: "time", text: "a time" },
];
const USUAL_S = 10;

/** Light written out for another system: how long, how exact, and as what. */
export function BakeSheet({ what }: { what: Bakeable }) {
  const { data: groups = [] } = useShow((show) => show.groups);
  const selection = useDesk((state) => state.selection);
  const isEffect = what.kind === "effect";
  const first = what.heads?.length ? what.heads : selection;
  const [on, setOn] = useState<OnHeads>({ heads: first, group_id: null });
  const [cycle, setCycle] = useState(isEffect);
  const [seconds, setSeconds] = useState(what.seconds ?? USUAL_S);
  const [begin, setBegin] = useState(what.begin ?? 0);
  const [rate, setRate] = useState(40);
  const [errors, setErrors] = useState<Record<string, number>>({});
  const [format, setFormat] = useState<BakeFormat>("json");
  const group = on.group_id ?? (isEffect && !on.heads.length ? (groups[0]?.id ?? null) : null);
  const isReady = !isEffect || on.heads.length > 0 || group !== null;
  const ask: BakeAsk = {
    kind: what.kind,
    number: what.number,
    picture: what.picture ?? 0,
    heads: group === null ? on.heads : [],
    group_id: group,
    seconds: cycle ? null : seconds,
    begin,
    rate,
    errors,
  };
  const { view, wrong, curve, lookAt, share, run, stop } = useBake(isReady ? ask : null);
  const close = () => desk.bake(null);
  const setError = (name: string, error: number | null) =>
    setErrors((before) => {
      const others = Object.entries(before).filter(([one]) => one !== name);
      return Object.fromEntries(error === null ? others : [...others, [name, error]]);
    });
  const looked = view?.attributes.find((one) => one.name === curve?.name);
  const busy = share !== null;
  return (
    <Sheet title={`Bake the ${WHAT[what.kind]} ${what.name}`} isOpen onClose={close}>
      <Row>
        <HeadsChoice
          label={isEffect ? "On" : "On, else all that it lights"}
          value={{ ...on, group_id: group }}
          onChange={setOn}
        />
        {isEffect && (
          <Choice
            label="For"
            options={LENGTHS}
            value={cycle ? "cycle" : "time"}
            onChange={(id) => setCycle(id === "cycle")}
          />
        )}
        {what.kind === "song" && (
          <NumberField label="From" unit="s" minValue={0} step={0.1} value={begin} onChange={setBegin} />
        )}
        {!cycle && (
          <NumberField
            label="Length"
            unit="s"
            minValue={0.1}
            maxValue={3600}
            step={0.1}
            value={seconds}
            onChange={setSeconds}
          />
        )}
        <NumberField
          label="Frames"
          unit="a second"
          minValue={1}
          maxValue={100}
          value={rate}
          onChange={setRate}
        />
      </Row>
      {wrong && <strong role="alert">{wrong}</strong>}
      {view && (
        <Content>
          <p role="status">
            {view.words || `${Number(view.seconds.toFixed(3))} s.`} {view.heads.length.toLocaleString("en")}{" "}
            head{view.heads.length === 1 ? "" : "s"}, {view.frames.toLocaleString("en")} frames.
          </p>
          <BakeAttributes
            view={view}
            errors={errors}
            looked={curve?.name ?? null}
            onError={setError}
            onLook={(name) => void lookAt(name)}
          />
          {curve && looked && (
            <>
              <p>
                {looked.label}: steps of all heads, against the error that is allowed. Choose one of the
                points.
              </p>
              <StepCurve
                label={`Steps of ${looked.label.toLowerCase()} against error`}
                unit={looked.unit}
                points={curve.points}
                chosen={errors[curve.name]}
                onChosen={(error) => setError(curve.name, error)}
              />
            </>
          )}
        </Content>
      )}
      {busy && <Progress label="Baking" share={share} onStop={stop} />}
      <Row>
        <Choice
          label="Write it as"
          options={FORMATS}
          value={format}
          onChange={(id) => setFormat(id as BakeFormat)}
        />
        <Button
          isDisabled={busy || !view}
          onPress={() => void run((headers) => bakes.file(ask, format, headers))}
        >
          Save the file
        </Button>
        {view?.cues != null && (
          <Button
            isDisabled={busy}
            onPress={() =>
              void run((headers) => bakes.cues(ask, `${what.name}, steps`, headers)).then((list) => {
                if (list === null) return;
                close();
                desk.openList(list, null);
              })
            }
          >
            Make a list of {view.cues} cues
          </Button>
        )}
      </Row>
      {view?.cues != null && <p>As cues it is off by at most: {view.cue_errors}.</p>}
      <Ending>
        <Button onPress={close}>Close</Button>
      </Ending>
    </Sheet>
  );
}
