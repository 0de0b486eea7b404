import { Trash2 } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";

import type { Channel } from "../../../api/kinds";
import { Button } from "../../../ui/Button";
import { Slider } from "../../../ui/Slider";
import { TypedNumber } from "./TypedNumber";
import { curveOf, curveText, slotsFrom } from "./kindDocument";

const Row = styled.tr`
  td {
    padding: 1px 8px 1px 0;
    border-bottom: 1px solid var(--line);
    white-space: nowrap;
  }
  .test {
    width: 84px;
  }
  [role="alert"] {
    white-space: normal;
    max-width: 260px;
  }
`;

interface Props {
  channel: Channel;
  home: number | null;
  sources: readonly string[];
  readOnly: boolean;
  tested: number | undefined;
  canTest: boolean;
  divided: boolean;
  onChange: (change: Partial<Channel>) => void;
  onHome: (home: number) => void;
  onRemove: () => void;
  onTest: (share: number) => void;
}

/** A channel: which slots it has, what it carries from where to where, and its value at home. */
export function ChannelRow({ channel, home, sources, readOnly, tested, canTest, divided, ...on }: Props) {
  const { source, slots, cell = 0, curve = [], inverted } = channel;
  const [problem, setProblem] = useState("");
  const [low, high] = inverted
    ? [channel.high ?? 1, channel.low ?? 0]
    : [channel.low ?? 0, channel.high ?? 1];
  const named = `Channel ${slots[0]! + 1}`;
  function putCurve(text: string) {
    const found = curveOf(text);
    setProblem(typeof found === "string" ? found : "");
    if (typeof found !== "string" && curveText(found) !== curveText(curve)) on.onChange({ curve: found });
  }
  return (
    <Row>
      <td>
        <TypedNumber
          label={`${named}, its slot`}
          value={slots[0]! + 1}
          readOnly={readOnly}
          onChange={(first) => on.onChange({ slots: slotsFrom(first, slots.length) })}
        />
      </td>
      <td>
        <select
          aria-label={`${named} carries`}
          value={source}
          disabled={readOnly}
          onChange={(event) => on.onChange({ source: event.target.value })}
        >
          {sources.map((one) => (
            <option key={one} value={one}>
              {one.replaceAll("_", " ")}
            </option>
          ))}
        </select>
      </td>
      {divided && <td>{cell ? `cell ${cell}` : "all"}</td>}
      <td>
        <select
          aria-label={`Bits of channel ${slots[0]! + 1}`}
          value={slots.length * 8}
          disabled={readOnly}
          onChange={(event) =>
            on.onChange({ slots: slotsFrom(slots[0]! + 1, Number(event.target.value) / 8) })
          }
        >
          {[8, 16, 24].map((bits) => (
            <option key={bits}>{bits}</option>
          ))}
        </select>
      </td>
      {(["low", "high"] as const).map((end) => (
        <td key={end}>
          <TypedNumber
            label={`${named}, at ${end === "low" ? "0" : "full"}`}
            value={end === "low" ? low : high}
            readOnly={readOnly || curve.length > 0}
            onChange={(value) => on.onChange({ low, high, inverted: false, [end]: value })}
          />
        </td>
      ))}
      <td>
        {home !== null && (
          <TypedNumber label={`${named}, at home`} value={home} readOnly={readOnly} onChange={on.onHome} />
        )}
      </td>
      <td className="levels">
        <input
          key={curveText(curve)}
          aria-label={`${named}, levels`}
          placeholder="straight"
          title="Values and levels where it does not run straight: 0 = 39, 1 = 60"
          defaultValue={curveText(curve)}
          readOnly={readOnly}
          size={22}
          onBlur={(event) => putCurve(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && putCurve(event.currentTarget.value)}
        />
        {problem && <div role="alert">{problem}</div>}
      </td>
      <td className="test">
        <Slider
          label={`Test channel ${slots[0]! + 1}`}
          bare
          minValue={0}
          maxValue={1}
          step={1 / 255}
          isDisabled={!canTest}
          value={tested ?? 0}
          onChange={on.onTest}
        />
      </td>
      <td>
        <Button
          data-variant="small"
          isDisabled={readOnly}
          aria-label={`Take channel ${slots[0]! + 1} out`}
          onPress={on.onRemove}
        >
          <Trash2 size={14} aria-hidden="true" />
        </Button>
      </td>
    </Row>
  );
}
