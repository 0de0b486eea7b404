import { useMemo, useState } from "react";
import styled from "styled-components";

import { pixelEdits, useCells, type Layer, type MapEdits, type PixelMap } from "../../api/pixels";
import { Scroller } from "../../ui/Scroller";
import { PixelCanvas } from "./canvas/PixelCanvas";
import { handsOf, handsOfMap } from "./hands";
import { MapBar } from "./maps/MapBar";
import { Sentence } from "./Sentence";

const Frame = styled.div`
  display: flex;
  flex-direction: column;
`;
const Sentences = styled(Scroller)`
  flex: none;
  max-height: 132px;
  padding: 4px 16px 6px;
`;

interface Props {
  map: PixelMap;
  maps: { id: number; name: string }[];
  layer: Layer | undefined;
  edits: MapEdits;
  onMap: (map: number) => void;
  onAdded: () => void;
  /** The order of cells is seen beside it, and their numbers on it. */
  showsCells: boolean;
  onCells: () => void;
}

/** The canvas of a map with what is done to it, and under it the chosen layer as a sentence. Files are dropped onto it. */
export function MapWork({ map, maps, layer, edits, onMap, onAdded, showsCells, onCells }: Props) {
  const { data: cells } = useCells(map.id, map.edition);
  const [numbered, setNumbered] = useState(false);
  const layerHands = useMemo(() => layer && handsOf(layer, edits), [layer, edits]);
  const mapHands = useMemo(() => handsOfMap(edits), [edits]);
  function dropped(event: React.DragEvent) {
    event.preventDefault();
    void (async () => {
      for (const file of event.dataTransfer.files) {
        const medium = await pixelEdits.takeIn(file);
        if (medium) await edits.addLayer({ medium: medium.hash });
      }
      onAdded();
    })();
  }
  return (
    <Frame onDragOver={(event) => event.preventDefault()} onDrop={dropped}>
      <MapBar
        map={map}
        maps={maps}
        edits={edits}
        onMap={onMap}
        onCells={onCells}
        numbered={numbered}
        onNumbered={setNumbered}
      />
      {cells && (
        <PixelCanvas
          map={map.id}
          cells={cells}
          layer={layer}
          edits={edits}
          numbered={numbered || showsCells}
        />
      )}
      <Sentences>
        {layer && layerHands && (
          <Sentence
            key={layer.id}
            parts={layer.sentence}
            hands={layerHands}
            label="The layer as a sentence"
          />
        )}
        <Sentence parts={map.sentence} hands={mapHands} label="How the map acts" quiet />
      </Sentences>
    </Frame>
  );
}
