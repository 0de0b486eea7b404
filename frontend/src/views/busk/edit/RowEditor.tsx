import { useState } from "react";
import styled from "styled-components";

import { useBuskEdits, type BuskRow, type Section } from "../../../api/busk";
import { useLists } from "../../../api/cues";
import { useShow } from "../../../api/queries";
import { Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { TextField } from "../../../ui/TextField";
import { PadList } from "./PadList";

const Frame = styled.div`
  padding: 12px 20px;
  display: grid;
  gap: 14px;
  align-content: start;
  overflow: auto;
`;
const Line = styled.div`
  display: flex;
  gap: 16px;
  align-items: end;
  flex-wrap: wrap;
  > span {
    display: flex;
    gap: 4px;
  }
`;
const TITLES: Record<Section, string> = {
  colour: "Colours",
  position: "Positions",
  beam: "Beam",
  effects: "Effects",
  messages: "Messages",
};
const NONE = 0;

/** A row as it is edited: its name, what it carries, and the pads of each section. */
export function RowEditor({ row }: { row: BuskRow }) {
  const edits = useBuskEdits();
  const [name, setName] = useState(row.name);
  const { data: tempos } = useShow((show) => show.tempos);
  const { data: lists } = useLists();
  const carries = (section: Section, on: boolean) =>
    void edits.changeRow(row.id, {
      carries: row.can.filter((one) => (one === section ? on : row.carries.includes(one))),
    });
  const sections: Section[] =
    row.kind === "messages" ? ["messages"] : row.carries.filter((one) => one !== "messages");
  const byTempo = (tempos ?? []).map((one) => ({ id: one.id, text: one.name }));
  return (
    <Frame aria-label={`Editing ${row.name}`}>
      <Line>
        <TextField
          label="Name"
          value={name}
          onChange={setName}
          onBlur={() => name.trim() && name !== row.name && void edits.changeRow(row.id, { name })}
        />
        {row.can.length > 0 && (
          <span role="group" aria-label="What the row carries">
            {row.can.map((section) => (
              <Toggle
                key={section}
                isSelected={row.carries.includes(section)}
                onChange={(on) => carries(section, on)}
              >
                {TITLES[section]}
              </Toggle>
            ))}
          </span>
        )}
        {byTempo.length > 0 && row.kind !== "messages" && row.kind !== "haze" && (
          <Choice
            label="Presses wait for the beat of"
            value={row.tempo ?? byTempo[0]!.id}
            options={byTempo}
            onChange={(key) => void edits.changeRow(row.id, { tempo: Number(key) })}
          />
        )}
        {row.kind === "all" && (
          <>
            <Choice
              label="Two colours go by"
              value={row.colour_tempo ?? byTempo[0]?.id ?? null}
              options={byTempo}
              onChange={(key) => void edits.changeRow(row.id, { colour_tempo: Number(key) })}
            />
            <Choice
              label="Space is go of"
              value={row.go_list ?? NONE}
              options={[
                { id: NONE, text: "the list chosen in Cues" },
                ...(lists ?? []).map((one) => ({ id: one.id, text: one.name })),
              ]}
              onChange={(key) => void edits.changeRow(row.id, { go_list: Number(key) })}
            />
          </>
        )}
      </Line>
      {row.kind === "haze" && <p>This row has the output and the fan of its hazers, each on a fader.</p>}
      {sections.map((section) => (
        <PadList key={section} row={row} section={section} title={TITLES[section]} />
      ))}
    </Frame>
  );
}
