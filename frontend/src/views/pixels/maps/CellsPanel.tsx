import { useEffect, useState } from "react";
import styled from "styled-components";

import type { Canvas, MapEdits, PixelMap } from "../../../api/pixels";
import { act } from "../../../live/socket";
import { useDesk } from "../../../state";
import { Button, Toggle } from "../../../ui/Button";
import { Scroller } from "../../../ui/Scroller";
import { SideHead } from "../SideHead";
import { CanvasFields } from "./CanvasFields";
import { CellsOfFixtures } from "./CellsOfFixtures";
import { hasRoom } from "./sides";

const Frame = styled.section`
  border-left: 1px solid var(--line);
  display: flex;
  flex-direction: column;
  > div {
    flex: 1;
    min-height: 0;
  }
`;
const Content = styled.div`
  display: grid;
  gap: 12px;
  padding: 10px 12px;
  p {
    color: var(--quiet);
  }
  p[role="status"] {
    color: var(--bone);
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
`;

interface Props {
  map: PixelMap;
  edits: MapEdits;
  onClose: () => void;
}

/** Which cells a map has, how they lie and in which order, beside their numbers on the canvas. What is changed acts at once;
 * a grid that has not enough boxes waits until it has. */
export function CellsPanel({ map, edits, onClose }: Props) {
  const selection = useDesk((state) => state.selection);
  const [drawn, setDrawn] = useState<Canvas | null>(null);
  const [runs, setRuns] = useState(false);
  const canvas = drawn ?? (map.document.canvas as Canvas);
  const heads = canvas.heads ?? [];
  const fits = hasRoom(canvas);
  async function change(next: Canvas) {
    setDrawn(next);
    if (!hasRoom(next)) return;
    await edits.change({ canvas: next });
    setDrawn(null);
  }
  useEffect(() => {
    if (!runs) return;
    act({ do: "highlight", steps: heads.map((one) => [one]), tempo: "Movement" });
    return () => act({ do: "highlight", steps: [] });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- anew with another order, not with each edit
  }, [runs, heads.join(" ")]);
  return (
    <Frame aria-label={`Cells of ${map.name}`}>
      <SideHead>
        <h2>Cells</h2>
        <Button data-variant="small" onPress={onClose}>
          Back to the layers
        </Button>
      </SideHead>
      <Scroller>
        <Content>
          <p>
            {canvas.everything
              ? "All lights that lie under it."
              : `${heads.length.toLocaleString("en")} cells. Their numbers on the canvas are their order.`}
          </p>
          <CanvasFields canvas={canvas} onChange={(next) => void change(next)} />
          {!fits && (
            <p role="status">
              {heads.length.toLocaleString("en")} cells do not fit on {canvas.columns} × {canvas.rows} boxes:
              give it more columns or rows.
            </p>
          )}
          <div className="ways">
            <Button
              data-variant="small"
              isDisabled={!selection.length}
              onPress={() => void change({ ...canvas, heads: selection, everything: false })}
            >
              Take the {selection.length} selected lights
            </Button>
            <Button
              data-variant="small"
              isDisabled={heads.length < 2}
              onPress={() => void change({ ...canvas, heads: [...heads].reverse() })}
            >
              Reverse the order
            </Button>
            <Toggle data-variant="small" isDisabled={!heads.length} isSelected={runs} onChange={setRuns}>
              Run through them in tempo
            </Toggle>
          </div>
          <CellsOfFixtures map={map} />
        </Content>
      </Scroller>
    </Frame>
  );
}
