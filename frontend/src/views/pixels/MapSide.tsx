import { Plus } from "lucide-react";
import { useState } from "react";
import { TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import { pixelEdits, usePixelTables, type Layer, type MapEdits, type PixelMap } from "../../api/pixels";
import { ActionMenu } from "../../ui/ActionMenu";
import { Scroller } from "../../ui/Scroller";
import { TabName, TabRow } from "../../ui/Tabs";
import { LayerList } from "./layers/LayerList";
import { LayerParts } from "./layers/LayerParts";
import { PictureShelf } from "./library/PictureShelf";
import { RenameSheet } from "./maps/RenameSheet";
import { SideHead } from "./SideHead";

const Frame = styled.div`
  border-left: 1px solid var(--line);
  display: flex;
  flex-direction: column;
  .layers {
    flex: 0 1 auto;
    min-height: 96px;
    max-height: 40%;
  }
  .lower {
    flex: 1;
    min-height: 0;
    display: flex;
    flex-direction: column;
    border-top: 1px solid var(--line);
  }
  .lower > [role="tabpanel"] {
    flex: 1;
    min-height: 0;
    display: flex;
    outline-offset: -2px;
  }
  .lower > [role="tabpanel"] > div {
    flex: 1;
    min-width: 0;
    padding: 8px 12px;
  }
`;

interface Props {
  map: PixelMap;
  layer: Layer | undefined;
  edits: MapEdits;
  onChoose: (layer: number | null) => void;
}

/** Beside the canvas: the layers, the pictures of the library, and the parts of the chosen layer. */
export function MapSide({ map, layer, edits, onChoose }: Props) {
  const { data: tables } = usePixelTables();
  const [tab, setTab] = useState("pictures");
  const [keeping, setKeeping] = useState<number[] | null>(null);
  const onTop = () => onChoose(null);
  const one = keeping?.length === 1 ? map.layers.find((each) => each.id === keeping[0]) : undefined;
  return (
    <Frame>
      <SideHead>
        <h2>Layers</h2>
        <ActionMenu
          label="Add a layer"
          variant="small"
          opener={
            <>
              <Plus size={15} aria-hidden="true" /> Add a layer
            </>
          }
          actions={(tables?.figures ?? []).map((each) => ({ id: each.name, text: each.label }))}
          onAction={(figure) => {
            setTab("parts");
            void edits.addLayer({ figure }).then(onTop);
          }}
        />
        <ActionMenu
          label="Layers"
          actions={[{ id: "keep", text: "Keep all layers as one picture…", disabled: !map.layers.length }]}
          onAction={() => setKeeping([])}
        />
      </SideHead>
      <Scroller className="layers">
        <LayerList
          map={map}
          chosen={layer?.id ?? null}
          edits={edits}
          onChoose={onChoose}
          onKeep={setKeeping}
        />
      </Scroller>
      <Tabs className="lower" selectedKey={tab} onSelectionChange={(key) => setTab(String(key))}>
        <TabRow aria-label="Beside the layers">
          <TabName id="pictures">Pictures</TabName>
          <TabName id="parts">Parts of the layer</TabName>
        </TabRow>
        <TabPanel id="pictures">
          <Scroller>
            <PictureShelf map={map} edits={edits} onAdded={onTop} />
          </Scroller>
        </TabPanel>
        <TabPanel id="parts">
          <Scroller>
            {layer ? (
              <LayerParts key={layer.id} layer={layer} edits={edits} />
            ) : (
              <p>Add a layer first: its figure, motion, colour and finish are chosen here.</p>
            )}
          </Scroller>
        </TabPanel>
      </Tabs>
      {keeping && (
        <RenameSheet
          title="Keep it in the library"
          name={one ? one.name || one.summary : map.name}
          onName={(name) => void pixelEdits.keep({ name, map: map.id, layers: keeping })}
          onClose={() => setKeeping(null)}
        />
      )}
    </Frame>
  );
}
