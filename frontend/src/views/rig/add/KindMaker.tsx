import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import styled from "styled-components";

import { api, take, type Schemas } from "../../../api/client";
import { useEdit } from "../../../api/queries";
import { Button } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { TextField } from "../../../ui/TextField";

const Frame = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 8px;
  height: 100%;
  min-height: 0;
  padding: 6px 0;
`;
const Row = styled.div`
  display: flex;
  align-items: end;
  gap: 8px;
  input {
    width: 150px;
  }
`;
const Channels = styled.div`
  overflow: auto;
  table {
    border-collapse: collapse;
    font-size: 14px;
  }
  th {
    text-align: left;
    font-weight: 500;
    color: var(--quiet);
  }
  td,
  th {
    padding: 2px 4px 2px 0;
  }
  td:first-child {
    font-family: var(--numbers);
  }
  input,
  select {
    min-height: 32px;
    border: 1px solid var(--edge);
    border-radius: 2px;
    background: var(--ink);
    color: var(--bone);
    font: inherit;
    padding: 0 6px;
  }
  input {
    width: 56px;
    text-align: right;
    font-family: var(--numbers);
  }
`;
type Channel = Required<Schemas["MadeChannel"]>;
const KINDS = ["par", "spot", "wash", "beam", "profile", "strobe", "blinder", "haze", "fan"] as const;
const NEW: Channel = { source: "", bits: 8, low: 0, high: 1, home: 0 };
/** What a channel usually means: its values at DMX 0 and at full, and at home. */
const USUAL: Record<string, [number, number, number]> = {
  intensity: [0, 100, 0],
  pan: [-270, 270, 0],
  tilt: [-130, 130, 0],
  zoom: [5, 50, 20],
  strobe: [0, 25, 0],
  temperature: [2700, 6500, 6500],
  gobo: [0, 7, 0],
};
const PERCENT = new Set([
  "iris",
  "frost",
  "focus",
  "prism",
  "haze",
  "fan_speed",
  "saturation",
  "tint",
  "white_mix",
]);

/** What is filled in when a channel is given something to carry. */
export function usual(source: string): Pick<Channel, "low" | "high" | "home"> {
  const [low, high, home] = USUAL[source] ?? (PERCENT.has(source) ? [0, 100, 0] : [0, 1, 0]);
  return { low, high, home };
}

interface Props {
  sources: readonly string[];
  onMade: (kind: Schemas["KindView"]) => void;
  onClose: () => void;
}

/** A kind from its channel list: one row a channel, in the order of the fixture's manual. */
export function KindMaker({ sources, onMade, onClose }: Props) {
  const [model, setModel] = useState("");
  const [kind, setKind] = useState<(typeof KINDS)[number]>("par");
  const [channels, setChannels] = useState<Channel[]>([
    { ...NEW, source: "intensity", ...usual("intensity") },
    ...["red", "green", "blue"].map((source) => ({ ...NEW, source })),
  ]);
  const make = useEdit(() => take(api.POST("/api/kinds", { body: { model, kind, channels } })));
  const change = (at: number, now: Partial<Channel>) =>
    setChannels(channels.map((channel, n) => (n === at ? { ...channel, ...now } : channel)));
  const first = (at: number) => 1 + channels.slice(0, at).reduce((sum, { bits }) => sum + bits / 8, 0);
  return (
    <Frame aria-label="A kind from its channels">
      <Row>
        <TextField label="What it is called" value={model} onChange={setModel} />
        <Choice
          label="It is a"
          options={KINDS.map((id) => ({ id, text: id }))}
          value={kind}
          onChange={(key) => setKind(key as typeof kind)}
        />
      </Row>
      <Channels>
        <table>
          <thead>
            <tr>
              <th>Channel</th>
              <th>Carries</th>
              <th>Bits</th>
              <th>At 0</th>
              <th>At full</th>
              <th>Home</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {channels.map((channel, n) => (
              <tr key={n}>
                <td>{first(n)}</td>
                <td>
                  <select
                    aria-label={`Channel ${first(n)} carries`}
                    value={channel.source}
                    onChange={(event) =>
                      change(n, { source: event.target.value, ...usual(event.target.value) })
                    }
                  >
                    <option value="">nothing</option>
                    {sources.map((source) => (
                      <option key={source} value={source}>
                        {source.replace("_", " ")}
                      </option>
                    ))}
                  </select>
                </td>
                <td>
                  <select
                    aria-label={`Bits of channel ${first(n)}`}
                    value={channel.bits}
                    onChange={(event) => change(n, { bits: Number(event.target.value) as Channel["bits"] })}
                  >
                    {[8, 16, 24].map((bits) => (
                      <option key={bits}>{bits}</option>
                    ))}
                  </select>
                </td>
                {(["low", "high", "home"] as const).map((end) => (
                  <td key={end}>
                    <input
                      type="number"
                      step="any"
                      aria-label={`Channel ${first(n)}, ${end === "low" ? "at 0" : end === "high" ? "at full" : "home"}`}
                      value={channel[end]}
                      onChange={(event) => change(n, { [end]: Number(event.target.value) })}
                    />
                  </td>
                ))}
                <td>
                  <Button
                    data-variant="small"
                    aria-label={`Take channel ${first(n)} out`}
                    onPress={() => setChannels(channels.filter((_, at) => at !== n))}
                  >
                    <Trash2 size={14} aria-hidden="true" />
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <Button data-variant="small" onPress={() => setChannels([...channels, NEW])}>
          <Plus size={14} aria-hidden="true" /> Another channel
        </Button>
      </Channels>
      <Row>
        <Button onPress={onClose}>Back to the kinds</Button>
        <Button
          isDisabled={!model.trim() || !channels.length}
          onPress={() => make.mutate(undefined, { onSuccess: onMade })}
        >
          Make the kind, {first(channels.length) - 1} channels
        </Button>
      </Row>
    </Frame>
  );
}
