import { desk } from "../../../state";
import { useState } from "react";
import styled from "styled-components";

import { pixelEdits, putOn, usePixelsTold, type MapEdits, type PixelMap } from "../../../api/pixels";
import { GiveBack } from "../../../frame/GiveBack";
import { act } from "../../../live/socket";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button, Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Fader } from "../../../ui/Fader";
import { NewMapSheet } from "./NewMapSheet";
import { PutOnSheet } from "./PutOnSheet";
import { RenameSheet } from "./RenameSheet";

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 16px;
  .about {
    flex: 1;
    min-width: 0;
    color: var(--quiet);
    font-size: 14px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .share {
    width: 132px;
    height: 40px;
    flex: none;
  }
`;
interface Props {
  map: PixelMap;
  maps: { id: number; name: string }[];
  edits: MapEdits;
  onMap: (map: number) => void;
  /** Show which cells it has, and their order. */
  onCells: () => void;
  numbered: boolean;
  onNumbered: (numbered: boolean) => void;
}

/** Which map, whether it is on stage, and what else is done with it. */
export function MapBar({ map, maps, edits, onMap, onCells, numbered, onNumbered }: Props) {
  const told = usePixelsTold()?.find((one) => one.map === map.id && one.picture === 0);
  const [open, setOpen] = useState<"new" | "put" | "name" | null>(null);
  const close = () => setOpen(null);
  return (
    <Bar>
      <Choice
        label="Pixel map"
        hideLabel
        options={maps.map((one) => ({ id: one.id, text: one.name }))}
        value={map.id}
        onChange={(id) => onMap(Number(id))}
      />
      <span className="about">{map.words}</span>
      <GiveBack subjects={[`pixels:${map.id}:0`]} />
      <Toggle isSelected={!!told?.on} onChange={(on) => putOn(map.id, on)}>
        {told?.on ? "On stage" : "Bring it in"}
      </Toggle>
      <div className="share">
        <Fader
          label={`Share of ${map.name}`}
          value={(told?.level ?? 0) * 100}
          words={(value) => `${Math.round(value)} %`}
          onMove={(value) => act({ do: "pixel-level", map: map.id, value: value / 100 })}
        />
      </div>
      <Button onPress={() => setOpen("put")}>Put it on…</Button>
      <ActionMenu
        label="Pixel maps"
        actions={[
          { id: "new", text: "New pixel map…" },
          { id: "order", text: "Cells and their order" },
          { id: "numbers", text: numbered ? "Hide the numbers of cells" : "Show the numbers of cells" },
          { id: "name", text: "Rename it…" },
          { id: "bake", text: "Bake for another system…" },
          { id: "delete", text: `Delete ${map.name}`, disabled: map.used_by.length > 0 },
        ]}
        onAction={(action) => {
          if (action === "delete") void pixelEdits.remove(map.id);
          else if (action === "bake") desk.bake({ kind: "map", number: map.id, name: map.name });
          else if (action === "numbers") onNumbered(!numbered);
          else if (action === "order") onCells();
          else setOpen(action as "new" | "name");
        }}
      />
      <NewMapSheet isOpen={open === "new"} onClose={close} onMade={onMap} />
      {open === "put" && <PutOnSheet map={map} isOpen onClose={close} />}
      {open === "name" && (
        <RenameSheet name={map.name} onClose={close} onName={(name) => void edits.change({ name })} />
      )}
    </Bar>
  );
}
