import { useEffect, useState } from "react";
import styled from "styled-components";

import { useMap, useMapEdits, usePixels, usePixelsTold, type PixelMap } from "../../api/pixels";
import { act } from "../../live/socket";
import { MapSide } from "./MapSide";
import { MapWork } from "./MapWork";
import { CellsPanel } from "./maps/CellsPanel";
import { NoMap } from "./maps/NoMap";

const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 328px;
  height: 100%;
  @media (max-width: 1180px) {
    grid-template-columns: minmax(0, 1fr) 288px;
  }
  > * {
    min-height: 0;
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

interface Props {
  map: PixelMap;
  maps: { id: number; name: string }[];
  onMap: (map: number) => void;
}

function Workbench({ map, maps, onMap }: Props) {
  const edits = useMapEdits(map.id);
  const [chosen, setChosen] = useState<number | null>(null);
  const [showsCells, setShowsCells] = useState(false);
  useSeen(map);
  const layer = map.layers.find((one) => one.id === chosen) ?? map.layers.at(-1);
  return (
    <Grid>
      <MapWork
        map={map}
        maps={maps}
        layer={layer}
        edits={edits}
        onMap={onMap}
        onAdded={() => setChosen(null)}
        showsCells={showsCells}
        onCells={() => setShowsCells(true)}
      />
      {showsCells ? (
        <CellsPanel map={map} edits={edits} onClose={() => setShowsCells(false)} />
      ) : (
        <MapSide map={map} layer={layer} edits={edits} onChoose={setChosen} />
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
