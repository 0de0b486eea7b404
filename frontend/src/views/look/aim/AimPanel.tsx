import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useAim } from "../../../api/hand";
import { useShow } from "../../../api/queries";
import type { Rig } from "../../../api/rig";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { useDesk } from "../../../state";
import { NumberField } from "../../../ui/NumberField";
import { Slider } from "../../../ui/Slider";
import { AimPlan } from "./AimPlan";
import type { XY } from "./plan";

const Panel = styled.section`
  display: grid;
  grid-template-columns: minmax(180px, 1fr) 172px;
  gap: 4px 12px;
  height: 100%;
  min-height: 150px;
  font-size: 14px;
`;
const Tools = styled.div`
  display: flex;
  flex-direction: column;
  gap: 5px;
  button,
  [role="group"] {
    min-height: 30px;
    font-size: 14px;
  }
  input {
    min-height: 28px;
    width: 3em;
  }
  p {
    color: var(--quiet);
  }
`;
/** As high as the handle goes, in metres; what is typed goes further. */
const HIGHEST_M = 8;
const AMOUNTS: Record<string, number> = { m: 4, "°": 40 };

interface Props {
  rig: Rig;
  keys: string[];
  /** Where they point now on the floor. */
  pointed: [number, number, number] | null;
}

/** Lights pointed at a place on stage: the mark is dragged on the plan, and they follow. */
export function AimPanel({ rig, keys, pointed }: Props) {
  const { data: ways = [] } = useShow((show) => show.aims);
  const [way, setWay] = useState("at one point");
  const [mark, setMark] = useState<XY | null>(null);
  const [height, setHeight] = useState(0);
  const [amount, setAmount] = useState<number | null>(null);
  const [answer, setAnswer] = useState<Schemas["AimDone"] | null>(null);
  const aim = useAim(setAnswer);
  const chosen = useMemo(() => new Set(keys), [keys]);
  const heads = useMemo(() => rig.heads.filter((head) => chosen.has(head.key)), [rig, chosen]);
  const [before, setBefore] = useState(keys);
  if (before.join() !== keys.join()) {
    setBefore(keys);
    setMark(null); // other lights: their own point
    setAnswer(null);
  }
  const unit = ways.find((one) => one.id === way)?.unit ?? "";
  const far = unit ? (amount ?? AMOUNTS[unit] ?? 0) : 0;
  const point = mark ?? (pointed ? { x: pointed[0], y: pointed[1] } : { x: 0, y: -2 });
  const unreached = useMemo(() => new Set(answer?.unreached ?? []), [answer]);
  const ask = (change: Partial<Schemas["AimLights"]> = {}) => ({
    heads: keys,
    way,
    point: [point.x, point.y, height] as [number, number, number],
    amount: far,
    other_way: false,
    ...change,
  });
  const raise = (to: number, kept: boolean) => {
    setHeight(to);
    const body = ask({ point: [point.x, point.y, to] });
    if (kept) void aim.commit(body);
    else aim.preview(body);
  };
  useEffect(() => {
    useDesk.setState({ unreached: [...unreached] });
    return () => useDesk.setState({ unreached: [] });
  }, [unreached]);
  return (
    <Panel aria-label="Aim">
      <AimPlan
        rig={rig}
        heads={heads}
        point={point}
        unreached={unreached}
        onPoint={(to, kept) => {
          setMark(to);
          const body = ask({ point: [to.x, to.y, height] });
          if (kept) void aim.commit(body);
          else aim.preview(body);
        }}
      />
      <Tools>
        <Choice
          label="Point"
          hideLabel
          options={ways.map(({ id }) => ({ id, text: id }))}
          value={way}
          onChange={(next) => {
            const fanned = ways.find((one) => one.id === next)?.unit ?? "";
            setWay(String(next));
            setAmount(null);
            void aim.commit(ask({ way: String(next), amount: fanned ? (AMOUNTS[fanned] ?? 0) : 0 }));
          }}
        />
        {unit && (
          <NumberField
            label="by"
            row
            unit={unit}
            minValue={-90}
            maxValue={90}
            value={far}
            onChange={(next) => {
              if (!Number.isFinite(next)) return;
              setAmount(next);
              void aim.commit(ask({ amount: next }));
            }}
          />
        )}
        <NumberField
          label="Height"
          row
          unit="m"
          minValue={-5}
          maxValue={20}
          step={0.1}
          value={height}
          onChange={(next) => Number.isFinite(next) && raise(next, true)}
        />
        <Slider
          bare
          label="Height, handle"
          minValue={0}
          maxValue={HIGHEST_M}
          step={0.1}
          value={Math.min(Math.max(height, 0), HIGHEST_M)}
          onChange={(next) => raise(next, false)}
          onChangeEnd={(next) => raise(next, true)}
        />
        <Button data-variant="small" onPress={() => void aim.commit(ask({ other_way: true }))}>
          Other way round
        </Button>
        <p aria-live="polite">{answer?.text ?? "Drag the mark: the lights follow."}</p>
      </Tools>
    </Panel>
  );
}
