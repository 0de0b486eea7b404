import { useState } from "react";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useFanHand } from "../../../api/hand";
import { Button, Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import type { Value } from "../values";
import { FanCurve } from "./FanCurve";
import { FanRule } from "./FanRule";

type Fan = Schemas["FanView"];
const Panel = styled.section`
  display: flex;
  flex-direction: column;
  gap: 6px;
  height: 100%;
  min-height: 0;
`;
const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  font-size: 14px;
  button {
    min-height: 30px;
    padding: 0 8px;
    font-size: 14px;
  }
  input {
    min-height: 28px;
    width: 2.6em;
  }
  [role="group"] {
    min-height: 30px;
  }
`;
interface Props {
  values: Value[];
  selection: string[];
  fans: Fan[];
}

/** Values spread over the selection by a rule, that stays adjustable as long as it is in the draft. */
export function FanPanel({ values, selection, fans }: Props) {
  const chosen = new Set(selection);
  const own = fans.filter((fan) => fan.heads.some((head) => chosen.has(head)));
  const [id, setId] = useState<number | null>(null);
  const [attribute, setAttribute] = useState("pan");
  const [seen, setSeen] = useState<Fan | null>(null);
  const hand = useFanHand(setSeen);
  const kept = own.find((fan) => fan.id === id) ?? own[0];
  const [before, setBefore] = useState(kept);
  if (before !== kept) {
    setBefore(kept);
    setSeen(null); // what was kept has come back
  }
  const fan = seen && seen.id === kept?.id ? seen : kept;
  const colours = values.some((one) => one.attribute === "red");
  const options = values
    .filter((one) => !["red", "green", "blue"].includes(one.attribute) && one.unit !== "slot")
    .map((one) => ({ id: one.attribute, text: one.label }))
    .concat(colours && !values.some((one) => one.attribute === "hue") ? [{ id: "hue", text: "Hue" }] : []);
  const wanted = options.some((one) => one.id === attribute) ? attribute : String(options[0]?.id ?? "");
  const change = (body: Omit<Schemas["ChangeFan"], "preview">) => fan && void hand.commit(fan.id, body);
  return (
    <Panel aria-label="Fan">
      <Tools>
        <Choice
          label="Fan of"
          row
          options={options}
          value={wanted}
          onChange={(name) => {
            setAttribute(String(name));
            setId(own.find((one) => one.attribute === name)?.id ?? null);
          }}
        />
        <Button
          isDisabled={!wanted}
          onPress={() =>
            void hand
              .make({ attribute: wanted, heads: selection, amount: wanted === "hue" ? 360 : 0 })
              .then((made) => made && setId(made.id))
          }
        >
          {own.some((one) => one.attribute === wanted) ? "Begin anew" : "Spread it"}
        </Button>
        {own.length > 1 &&
          own.map((one) => (
            <Toggle key={one.id} isSelected={one.id === fan?.id} onChange={() => setId(one.id)}>
              {one.label}
            </Toggle>
          ))}
      </Tools>
      {fan ? (
        <>
          <Tools>
            <FanRule rule={fan} onChange={change} />
          </Tools>
          <FanCurve
            key={fan.id}
            fan={fan}
            onDrag={(head, value, isKept) => {
              if (isKept) void hand.commit(fan.id, { drag: [head, value] });
              else hand.preview(fan.id, { drag: [head, value] });
            }}
          />
        </>
      ) : (
        <p>
          Choose what to spread over the {selection.length} selected heads in their order. Then drag any point
          of the curve: the others follow.
        </p>
      )}
    </Panel>
  );
}
