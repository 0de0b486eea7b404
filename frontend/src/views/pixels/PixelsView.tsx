import { Plus } from "lucide-react";
import { useEffect, useState } from "react";
import styled from "styled-components";

import {
  pixelEdits,
  useCells,
  useMap,
  useMapEdits,
  usePixels,
  usePixelsTold,
  usePixelTables,
  type PixelMap,
} from "../../api/pixels";
import { act } from "../../live/socket";
import { ActionMenu } from "../../ui/ActionMenu";
import { Scroller } from "../../ui/Scroller";
import { PixelCanvas } from "./canvas/PixelCanvas";
import { LayerEditor } from "./layers/LayerEditor";
import { LayerList } from "./layers/LayerList";
import { PictureShelf } from "./library/PictureShelf";
import { MapBar } from "./maps/MapBar";
import { NoMap } from "./maps/NoMap";
import { RenameSheet } from "./maps/RenameSheet";

const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  height: 100%;
  @media (max-width: 1180px) {
    grid-template-columns: minmax(0, 1fr) 288px;
  }
  > * {
    min-height: 0;
  }
`;
const Left = styled.div`
  display: flex;
  flex-direction: column;
  .editor {
    flex: none;
    max-height: 46%;
  }
`;
const Right = styled(Scroller)`
  border-left: 1px solid var(--line);
`;
const Head = styled.div`
  display: flex;
  align-items: center;
  padding: 6px 12px;
  border-bottom: 1px solid var(--line);
  h2 {
    flex: 1;
  }
`;

/** While a map is not on stage, screens show it as it would be. */
function useSeen(map: PixelMap) {
  const on = usePixelsTold()?.some((one) => one.map === map.id && one.on) ?? false;
  useEffect(() => {
    if (on) return;
    act({ do: "look-at-pixels", map: map.id, picture: 0 });
    return () => act({ do: "look-at-pixels", map: 0 });
  }, [map.id, on]);
}

function Workbench({
  map,
  maps,
  onMap,
}: {
  map: PixelMap;
  maps: { id: number; name: string }[];
  onMap: (id: number) => void;
}) {
  const edits = useMapEdits(map.id);
  const { data: cells } = useCells(map.id, map.edition);
  const { data: tables } = usePixelTables();
  const [chosen, setChosen] = useState<number | null>(null);
  const [numbered, setNumbered] = useState(false);
  const [keeping, setKeeping] = useState<number[] | null>(null);
  useSeen(map);
  const layer = map.layers.find((one) => one.id === chosen) ?? map.layers.at(-1);
  const choose = () => setChosen(null); // the one on top
  function dropped(event: React.DragEvent) {
    event.preventDefault();
    void (async () => {
      for (const file of event.dataTransfer.files) {
        const medium = await pixelEdits.takeIn(file);
        if (medium) await edits.addLayer({ medium: medium.hash });
      }
      choose();
    })();
  }
  return (
    <Grid>
      <Left onDragOver={(event) => event.preventDefault()} onDrop={dropped}>
        <MapBar
          map={map}
          maps={maps}
          edits={edits}
          onMap={onMap}
          numbered={numbered}
          onNumbered={setNumbered}
        />
        {cells && <PixelCanvas cells={cells} layer={layer} edits={edits} numbered={numbered} />}
        {layer && (
          <Scroller className="editor">
            <LayerEditor key={layer.id} layer={layer} edits={edits} />
          </Scroller>
        )}
      </Left>
      <Right>
        <Head>
          <h2>Layers</h2>
          <ActionMenu
            label="Add a layer"
            variant="small"
            opener={
              <>
                <Plus size={15} aria-hidden="true" /> Add a layer
              </>
            }
            actions={(tables?.figures ?? []).map((one) => ({ id: one.name, text: one.label }))}
            onAction={(figure) => void edits.addLayer({ figure }).then(choose)}
          />
          <ActionMenu
            label="Layers"
            actions={[{ id: "keep", text: "Keep all layers as one picture…", disabled: !map.layers.length }]}
            onAction={() => setKeeping([])}
          />
        </Head>
        <LayerList
          map={map}
          chosen={layer?.id ?? null}
          edits={edits}
          onChoose={setChosen}
          onKeep={setKeeping}
        />
        <PictureShelf map={map} edits={edits} onAdded={choose} />
      </Right>
      {keeping && (
        <RenameSheet
          title="Keep it in the library"
          name={keeping.length === 1 ? layer?.name || layer?.summary || "" : map.name}
          onName={(name) => void pixelEdits.keep({ name, map: map.id, layers: keeping })}
          onClose={() => setKeeping(null)}
        />
      )}
    </Grid>
  );
}

/** Pixel maps: all cells of a surface as one picture, and the layers that it is painted with. */
export function PixelsView() {
  const { data } = usePixels();
  const [chosen, setChosen] = useState<number | null>(null);
  const id = data?.maps.find((one) => one.id === chosen)?.id ?? data?.maps[0]?.id ?? null;
  const { data: map } = useMap(id);
  if (!data) return null;
  if (!data.maps.length) return <NoMap onMade={setChosen} />;
  return map ? <Workbench key={map.id} map={map} maps={data.maps} onMap={setChosen} /> : null;
}
