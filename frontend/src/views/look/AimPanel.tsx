import { useMemo, useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useAim } from "../../api/hand";
import { useShow } from "../../api/queries";
import type { Rig } from "../../api/rig";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { NumberField } from "../../ui/NumberField";
import { AimPlan } from "./AimPlan";
import type { XY } from "./plan";

const Panel = styled.section`
  display: grid;
  grid-template-rows: auto minmax(140px, 1fr) auto auto;
  gap: 6px;
  height: 100%;
  h2 small {
    color: var(--quiet);
    font-weight: 400;
    font-size: 13px;
    margin-left: 8px;
  }
`;
const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
`;
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
  return (
    <Panel aria-label="Aim">
      <h2>
        Aim <small>{answer?.text ?? "drag the mark: the lights follow"}</small>
      </h2>
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
          row
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
      </Tools>
      <Tools>
        <NumberField
          label="Height"
          row
          unit="m"
          minValue={-5}
          maxValue={20}
          step={0.1}
          value={height}
          onChange={(next) => {
            if (!Number.isFinite(next)) return;
            setHeight(next);
            void aim.commit(ask({ point: [point.x, point.y, next] }));
          }}
        />
        <Button onPress={() => void aim.commit(ask({ other_way: true }))}>Other way round</Button>
      </Tools>
    </Panel>
  );
}
