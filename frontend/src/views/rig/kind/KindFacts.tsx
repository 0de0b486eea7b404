import styled from "styled-components";

import type { KindDocument, KindSheet } from "../../../api/kinds";
import { Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { NumberField } from "../../../ui/NumberField";
import { asHex, fromHex, labelOf, renamed } from "./kindDocument";

const Fields = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: end;
  .react-aria-Label,
  label {
    font-size: 13px;
  }
  [role="group"] {
    min-height: 32px;
  }
  input {
    min-height: 30px;
  }
  label > input[type="text"] {
    display: block;
    width: 116px;
    background: transparent;
    color: var(--bone);
    border: 1px solid var(--edge);
    border-radius: 2px;
    font: inherit;
    padding: 0 6px;
  }
  input[type="color"] {
    display: block;
    width: 46px;
    padding: 0;
    border: 1px solid var(--edge);
    background: transparent;
  }
`;
const Emitters = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  font-size: 14px;
  i {
    display: inline-block;
    width: 14px;
    height: 14px;
    margin-right: 5px;
    vertical-align: -2px;
    border: 1px solid var(--edge);
  }
`;
const KINDS = [
  "par",
  "spot",
  "wash",
  "beam",
  "profile",
  "bar",
  "batten",
  "wall",
  "strobe",
  "blinder",
  "haze",
  "fan",
].map((id) => ({ id, text: id }));
const WHITES = ["temperature", "tint", "white_mix"];
const NUMBERS = [
  ["beam_deg", "Beam", "°", 0.5, 170],
  ["pan_speed", "Pan at most", "°/s", 1, 3600],
  ["tilt_speed", "Tilt at most", "°/s", 1, 3600],
] as const;

interface Props {
  sheet: KindSheet;
  document: KindDocument;
  onChange: (document: KindDocument) => void;
}

/** What a kind is, how it makes colour, how wide and how fast it is. */
export function KindFacts({ sheet, document, onChange }: Props) {
  const readOnly = sheet.id === null;
  const moves = (name: string) => document.channels.some((channel) => channel.source === name);
  const numbers = NUMBERS.filter(([field]) => field === "beam_deg" || moves(field.split("_")[0]!));
  const kinds = KINDS.some((one) => one.id === document.kind)
    ? KINDS
    : [...KINDS, { id: document.kind, text: document.kind }];
  return (
    <section aria-label="What it is">
      <Fields>
        {!readOnly &&
          (
            [
              ["maker", "Maker", document.maker],
              ["model", "Model", document.model],
              ["label", "Mode", labelOf(document)],
            ] as const
          ).map(([field, label, text]) => (
            <label key={`${field} ${text}`}>
              {label}
              <input
                type="text"
                defaultValue={text}
                maxLength={60}
                onBlur={(event) => {
                  const typed = event.target.value.trim();
                  if (typed !== text && (typed || field === "maker"))
                    onChange(renamed(document, field, typed));
                }}
              />
            </label>
          ))}
        <Choice
          label="It is a"
          options={kinds}
          value={document.kind}
          isDisabled={readOnly}
          onChange={(kind) => onChange({ ...document, kind: String(kind) })}
        />
        <Choice
          label="Colour by"
          options={Object.keys(sheet.emitters).map((id) => ({ id, text: id === "none" ? "nothing" : id }))}
          value={document.emitters}
          isDisabled={readOnly}
          onChange={(emitters) => onChange({ ...document, emitters: String(emitters) })}
        />
        {numbers.map(([field, label, unit, least, most]) => (
          <NumberField
            key={field}
            label={label}
            unit={unit}
            minValue={least}
            maxValue={most}
            isDisabled={readOnly}
            value={document[field]}
            onChange={(value) => value >= least && onChange({ ...document, [field]: value })}
          />
        ))}
        <NumberField
          label="Slots in all"
          minValue={1}
          maxValue={2048}
          isDisabled={readOnly}
          value={document.footprint}
          onChange={(footprint) => footprint >= 1 && onChange({ ...document, footprint })}
        />
        {document.emitters === "none" && (
          <label>
            Its light
            <input
              type="color"
              defaultValue={asHex(document.light)}
              disabled={readOnly}
              onBlur={(event) =>
                event.target.value !== asHex(document.light) &&
                onChange({ ...document, light: fromHex(event.target.value) })
              }
            />
          </label>
        )}
        {["rgb", "rgbw", "rgbaw", "cmy"].includes(document.emitters) && (
          <Toggle
            data-variant="small"
            isDisabled={readOnly}
            isSelected={document.virtual.length > 0}
            onChange={(on) => onChange({ ...document, virtual: on ? WHITES : [] })}
          >
            White light of its colours
          </Toggle>
        )}
      </Fields>
      {Object.keys(document.emitter_colours).length > 0 && (
        <Emitters>
          As measured by its maker:
          {Object.entries(document.emitter_colours).map(([name, drive]) => (
            <span key={name}>
              <i style={{ background: asHex(drive) }} aria-hidden="true" />
              {name}
            </span>
          ))}
        </Emitters>
      )}
      {sheet.limits.map((one) => (
        <p key={one}>{one}</p>
      ))}
    </section>
  );
}
