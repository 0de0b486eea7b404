import { useMemo } from "react";
import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";

import { usePalettes, useRig } from "../../../api/queries";
import { specialEdits, useSpecials, useSpecialsTold, type Special } from "../../../api/specials";
import { act } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button } from "../../../ui/Button";
import { NumberField } from "../../../ui/NumberField";
import { Slider } from "../../../ui/Slider";
import { TextField } from "../../../ui/TextField";
import { AimPlan } from "../../look/aim/AimPlan";
import { AimTools } from "./AimTools";
import { LightsChoice } from "./LightsChoice";
import { useSpecial } from "./useSpecial";

const Panel = styled.div`
  display: grid;
  grid-template-rows: auto auto auto minmax(110px, 1fr) auto auto auto auto;
  align-content: start;
  gap: 4px;
  height: 100%;
  min-height: 0;
  font-size: 13px;
  overflow-y: auto;
  h2 {
    font-size: 14px;
    font-weight: 650;
  }
  label {
    color: var(--quiet);
  }
  input {
    min-height: 32px;
    width: 100%;
    font-size: 14px;
    padding: 0 6px;
  }
`;
const Head = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
`;
const Swatches = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(24px, 1fr));
  gap: 2px;
`;
const Swatch = styled(AriaButton)`
  height: 26px;
  border: 1px solid var(--edge);
  padding: 0;
  cursor: pointer;
  &[data-on] {
    border: 2px solid var(--bone);
    box-shadow: inset 0 0 0 3px var(--ink);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
`;
const Three = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 4px;
  button {
    padding: 0 4px;
  }
`;
const WHITE = "#ffffff";
const TIMES = [
  { name: "out", text: "dark in" },
  { name: "move", text: "dark for" },
  { name: "up", text: "opens in" },
] as const;

interface Props {
  /** Null: a new one. */
  special: Special | null;
  onOpen: (id: number | null) => void;
  onClose: () => void;
}

/** A special made or changed beside the live page, in the order of the job: lights, aim, colour, zoom, level, times. */
export function SpecialEditor({ special, onOpen, onClose }: Props) {
  const { data: rig } = useRig();
  const { data } = useSpecials();
  const { data: palettes } = usePalettes();
  const edit = useSpecial(special, onOpen);
  const { document } = edit;
  const on = useSpecialsTold()?.find((one) => one.id === special?.id)?.on ?? false;
  const chosen = useMemo(() => new Set(document.heads), [document.heads]);
  const heads = useMemo(() => rig?.heads.filter((head) => chosen.has(head.key)) ?? [], [rig, chosen]);
  const unreached = useMemo(() => new Set(Object.keys(edit.aim?.unreached ?? {})), [edit.aim]);
  const places = data?.places ?? [];
  const place = places.find((one) => one.id === document.aim?.place);
  const point = place?.point ?? document.aim?.point ?? [0, 0, 0];
  const colours = palettes?.palettes.flatMap((one) => one.picture.colours.slice(0, 1)) ?? [];
  const offered = [...new Set([WHITE, ...colours, document.colour ?? WHITE])].slice(0, 21);
  const zoom = document.beam?.zoom;
  if (!rig) return null;
  return (
    <Panel>
      <Head>
        <h2>{special ? "Change a special" : "Make a special"}</h2>
        <Button data-variant="small" onPress={onClose}>
          Close
        </Button>
      </Head>
      <TextField
        label="Name of the special"
        hideLabel
        placeholder="Name, such as Singer"
        value={edit.name}
        onChange={edit.rename}
        onBlur={() => special && edit.name.trim() && edit.name !== special.name && void edit.keep()}
        maxLength={80}
      />
      <LightsChoice heads={document.heads ?? []} onChange={(heads) => edit.change({ heads })} />
      <AimPlan
        rig={rig}
        heads={heads}
        point={{ x: point[0], y: point[1] }}
        unreached={unreached}
        onPoint={({ x, y }, kept) => {
          const aim = { point: [x, y, point[2]] as [number, number, number], place: null };
          (kept ? edit.change : edit.show)({ aim });
        }}
      />
      <AimTools
        places={places}
        place={place}
        point={point}
        told={edit.aim?.text ?? ""}
        onAim={(aim) => edit.change({ aim })}
      />
      <Swatches role="group" aria-label="Colour">
        {offered.map((colour) => (
          <Swatch
            key={colour}
            aria-label={colour === WHITE ? "white" : colour}
            aria-pressed={colour === document.colour}
            data-on={colour === document.colour || undefined}
            style={{ background: colour }}
            onPress={() => edit.change({ colour })}
          />
        ))}
      </Swatches>
      <div>
        <Slider
          label="Zoom"
          unit="°"
          minValue={4}
          maxValue={60}
          value={zoom ?? 20}
          words={(value) => (zoom === undefined ? "as at home" : `${value}°`)}
          onChange={(value) => edit.show({ beam: { ...document.beam, zoom: value } })}
          onChangeEnd={(value) => edit.change({ beam: { ...document.beam, zoom: value } })}
        />
        <Slider
          label="Level"
          unit="%"
          minValue={0}
          maxValue={100}
          value={document.level ?? 100}
          onChange={(level) => edit.show({ level })}
          onChangeEnd={(level) => edit.change({ level })}
        />
        <Three>
          {TIMES.map(({ name, text }) => (
            <NumberField
              key={name}
              label={text}
              unit="s"
              minValue={0}
              maxValue={60}
              step={0.1}
              value={document[name] ?? 0}
              onChange={(value) => Number.isFinite(value) && edit.change({ [name]: value })}
            />
          ))}
        </Three>
      </div>
      <Three>
        <Button
          aria-pressed={on}
          data-selected={on || undefined}
          isDisabled={!document.heads?.length}
          onPress={() =>
            on && special ? act({ do: "special", special: special.id, on: false }) : void edit.press()
          }
        >
          {on ? "On: home" : special ? "Press it" : "Keep, press"}
        </Button>
        {!special && (
          <Button isDisabled={!document.heads?.length} onPress={() => void edit.keep()}>
            Keep
          </Button>
        )}
        <ActionMenu
          label="This special"
          opener="more"
          variant="full"
          onAction={(id) => {
            if (id === "select") edit.select();
            if (id === "again" && special) {
              edit.select();
              onOpen(null);
            }
            if (id === "delete" && special) {
              void specialEdits.remove(special.id);
              onClose();
            }
          }}
          actions={[
            { id: "select", text: "Select its lights", disabled: !document.heads?.length },
            { id: "again", text: "The same lights, elsewhere", disabled: !special },
            { id: "delete", text: "Delete it", disabled: !special },
          ]}
        />
      </Three>
    </Panel>
  );
}
