import { ToggleButton } from "react-aria-components";
import styled from "styled-components";

import { usePixelTables, type Layer, type MapEdits } from "../../../api/pixels";
import { Strip } from "../Strip";

const Groups = styled.div`
  display: grid;
  gap: 8px;
  h3 {
    font-size: 14px;
    font-weight: 400;
    color: var(--quiet);
    margin-bottom: 4px;
  }
`;
const Entries = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
`;
const Entry = styled(ToggleButton)`
  width: 66px;
  min-height: 48px;
  padding: 2px;
  border: 1px solid transparent;
  background: transparent;
  color: var(--quiet);
  font: inherit;
  font-size: 13px;
  line-height: 16px;
  cursor: pointer;
  text-align: left;
  i {
    height: 26px;
    margin-bottom: 1px;
  }
  &[data-hovered] {
    color: var(--bone);
  }
  &[data-selected] {
    border-color: var(--bone);
    color: var(--bone);
    font-weight: 650;
  }
`;
const FINISHES = [
  ["fold", "left to right", "none", "fold"],
  ["repeat_across", 2, 1, "repeat"],
  ["soften", 0.3, 0, "soften"],
  ["crisp", 0.6, 0, "crisp"],
  ["grey", 1, 0, "grey"],
] as const;

interface GroupProps {
  title: string;
  table: "figure" | "motion" | "over";
  entries: { name: string; label: string }[];
  chosen: string;
  onChoose: (name: string) => void;
}

function Group({ title, table, entries, chosen, onChoose }: GroupProps) {
  return (
    <div role="group" aria-label={title}>
      <h3>{title}</h3>
      <Entries>
        {entries.map((one) => (
          <Entry key={one.name} isSelected={one.name === chosen} onChange={() => onChoose(one.name)}>
            <Strip src={`/api/pixels/tables/${table}/${one.name}/strip.png`} />
            {one.label.replace(/^(over the|in its) /, "")}
          </Entry>
        ))}
      </Entries>
    </div>
  );
}

/** The four parts of a layer, chosen apart: any goes with any. */
export function PartChooser({ layer, edits }: { layer: Layer; edits: MapEdits }) {
  const { data: tables } = usePixelTables();
  if (!tables) return null;
  const { figure, motion, colour, finish } = layer.document;
  const pictured = figure === "picture" || figure === "film";
  const overs = tables.overs.filter((one) => one.name !== "own" || pictured);
  const set = (path: string) => (value: unknown) => void edits.set(layer.id, path, value);
  const done = (finish ?? {}) as Record<string, unknown>;
  return (
    <Groups>
      <Group
        title="Figure"
        table="figure"
        entries={tables.figures}
        chosen={figure ?? ""}
        onChoose={set("figure")}
      />
      <Group
        title="Motion"
        table="motion"
        entries={tables.motions}
        chosen={motion ?? ""}
        onChoose={set("motion")}
      />
      <Group
        title="Colour"
        table="over"
        entries={overs}
        chosen={colour?.over ?? ""}
        onChoose={set("colour.over")}
      />
      <div role="group" aria-label="Finish">
        <h3>Finish</h3>
        <Entries>
          {FINISHES.map(([name, on, off, label]) => (
            <Entry
              key={name}
              style={{ minHeight: 32 }}
              isSelected={done[name] !== off}
              onChange={(chosen) => void edits.set(layer.id, `finish.${name}`, chosen ? on : off)}
            >
              {label}
            </Entry>
          ))}
        </Entries>
      </div>
    </Groups>
  );
}
