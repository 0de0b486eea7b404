import { Plus } from "lucide-react";
import styled from "styled-components";

import type { KindDocument } from "../../../api/kinds";
import { Button } from "../../../ui/Button";
import { ChannelRow } from "./ChannelRow";
import { behind, listed, resting, slotsFrom, withChannel, withRest } from "./kindDocument";
import { TypedNumber } from "./TypedNumber";
import type { useTesting } from "./useTesting";

const Frame = styled.div`
  table {
    border-collapse: collapse;
    font-size: 14px;
  }
  th {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--ink);
    text-align: left;
    font-weight: 500;
    color: var(--quiet);
    padding: 4px 8px 4px 0;
  }
  select,
  input:not([type="range"]) {
    background: transparent;
    color: var(--bone);
    border: 1px solid var(--edge);
    border-radius: 2px;
    min-height: 30px;
    padding: 0 6px;
  }
  select,
  input {
    font-family: inherit;
  }
  option {
    background: var(--raised);
  }
  input:read-only,
  select:disabled {
    border-color: transparent;
    color: var(--quiet);
    opacity: 1;
  }
  @media (max-width: 1180px) {
    && td,
    && th {
      padding-right: 4px;
    }
    input:not([type="range"]) {
      width: 3.6em;
      padding: 0 4px;
    }
    select {
      max-width: 84px;
      padding: 0 2px;
    }
    .levels input:not([type="range"]) {
      width: 108px;
    }
    .test {
      width: 62px;
    }
  }
  .quiet td {
    color: var(--quiet);
    border-bottom: 1px solid var(--line);
    padding: 1px 8px 1px 0;
  }
`;
const MOST_RESTING = 64;

interface Props {
  document: KindDocument;
  cell: number;
  sources: readonly string[];
  /** The usual values at home. */
  homes: Readonly<Record<string, number>>;
  readOnly: boolean;
  testing: ReturnType<typeof useTesting>;
  onChange: (document: KindDocument) => void;
}

/** All channels of the whole and of one cell, by slot; below them the slots that nothing drives. */
export function ChannelTable({ document, cell, sources, homes, readOnly, testing, onChange }: Props) {
  const idle = resting(document);
  const divided = document.cells.length > 0;
  const fits = (now: KindDocument) =>
    onChange({ ...now, footprint: Math.max(now.footprint, behind(now) - 1) });
  function add() {
    const slots = slotsFrom(behind(document), 1);
    fits({
      ...document,
      channels: [...document.channels, { source: "focus", slots, low: 0, high: 100, cell: 0 }],
    });
  }
  const setHome = (source: string, home: number, low: number, high: number) => {
    const [least, most] = document.limits[source] ?? [Math.min(low, high), Math.max(low, high)];
    onChange({ ...document, limits: { ...document.limits, [source]: [least, most, home] } });
  };
  return (
    <Frame>
      <table aria-label="Channels">
        <thead>
          <tr>
            {[
              "Slot",
              "Carries",
              ...(divided ? ["Of"] : []),
              "Bits",
              "At 0",
              "At full",
              "Home",
              "Levels",
              "Test",
            ].map((title) => (
              <th key={title}>{title}</th>
            ))}
            <td />
          </tr>
        </thead>
        <tbody>
          {listed(document, cell).map(({ channel, at }) => (
            <ChannelRow
              key={at}
              channel={channel}
              home={document.limits[channel.source]?.[2] ?? homes[channel.source] ?? null}
              sources={sources}
              readOnly={readOnly}
              tested={testing.shares.get(channel.slots[0]!)}
              canTest={testing.can}
              divided={divided}
              onChange={(change) => fits(withChannel(document, at, change))}
              onHome={(home) => setHome(channel.source, home, channel.low ?? 0, channel.high ?? 1)}
              onRemove={() =>
                onChange({ ...document, channels: document.channels.filter((_, n) => n !== at) })
              }
              onTest={(share) => testing.hold(channel, share)}
            />
          ))}
          {idle.slice(0, MOST_RESTING).map(([slot, level]) => (
            <tr key={`rest ${slot}`} className="quiet">
              <td>{slot + 1}</td>
              <td colSpan={divided ? 4 : 3}>nothing drives it</td>
              <td>stays at</td>
              <td>
                <TypedNumber
                  label={`Slot ${slot + 1} stays at`}
                  value={level}
                  readOnly={readOnly}
                  onChange={(byte) => onChange(withRest(document, slot, byte))}
                />
              </td>
              <td colSpan={3} />
            </tr>
          ))}
        </tbody>
      </table>
      {!readOnly && (
        <Button data-variant="small" onPress={add}>
          <Plus size={14} aria-hidden="true" /> Another channel
        </Button>
      )}
    </Frame>
  );
}
