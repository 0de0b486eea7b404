import { ChevronDown, ChevronUp, Eye, EyeOff } from "lucide-react";
import styled from "styled-components";

import { usePixelsTold, type Layer, type MapEdits, type PixelMap } from "../../../api/pixels";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button, Toggle } from "../../../ui/Button";
import { Strip } from "../Strip";

const Rows = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
`;
const Row = styled.li`
  display: grid;
  grid-template-columns: 62px minmax(0, 1fr) auto;
  align-items: center;
  gap: 10px;
  padding: 5px 4px 5px 9px;
  border-bottom: 1px solid var(--line);
  border-left: 3px solid transparent;
  &[data-chosen] {
    border-left-color: var(--bone);
    background: var(--raised);
  }
  &[data-off] .name,
  &[data-off] .strip {
    opacity: 0.45;
  }
  .strip {
    width: 62px;
    height: 34px;
  }
  .tools {
    display: flex;
    align-items: center;
    gap: 2px;
  }
  .tools button {
    min-height: 32px;
    padding: 0 6px;
  }
`;
const Name = styled(Button)`
  && {
    display: block;
    text-align: left;
    border: 0;
    padding: 2px 4px;
    min-height: 40px;
    white-space: nowrap;
    overflow: hidden;
    background: transparent;
    color: var(--bone);
  }
  strong,
  small {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  small {
    color: var(--quiet);
    font-size: 13px;
  }
`;
const Empty = styled.p`
  padding: 12px;
  color: var(--quiet);
`;

interface Props {
  map: PixelMap;
  chosen: number | null;
  edits: MapEdits;
  onChoose: (layer: number) => void;
  onKeep: (layers: number[]) => void;
}

const NOTHING: Record<number, number> = {};
const percent = (layer: Layer) => `${Math.round((layer.document.opacity ?? 1) * 100)} %`;

/** The layers of a map, the one on top first. */
export function LayerList({ map, chosen, edits, onChoose, onKeep }: Props) {
  const ids = map.layers.map((one) => one.id);
  const moved = (id: number, by: number) => {
    const at = ids.indexOf(id);
    const order = ids.filter((one) => one !== id);
    order.splice(Math.min(Math.max(at + by, 0), order.length), 0, id);
    void edits.order(order);
  };
  const heard = usePixelsTold()?.find((one) => one.map === map.id && one.picture === 0)?.heard ?? NOTHING;
  const someAlone = map.layers.some((one) => one.document.alone && one.document.on);
  if (!map.layers.length)
    return <Empty>No layer yet. Choose a picture below, or add a layer: it is seen at once.</Empty>;
  return (
    <Rows aria-label="Layers, the one on top first">
      {[...map.layers].reverse().map((layer) => {
        const name = layer.name || layer.summary;
        const seen = layer.document.on && (!someAlone || layer.document.alone);
        return (
          <Row key={layer.id} data-chosen={layer.id === chosen || undefined} data-off={!seen || undefined}>
            <Strip
              className="strip"
              seconds={4}
              src={`/api/pixels/${map.id}/layers/${layer.id}/strip.png?${layer.edition}`}
            />
            <Name className="name" aria-pressed={layer.id === chosen} onPress={() => onChoose(layer.id)}>
              <strong>{name}</strong>
              <small>
                {layer.document.join} · {percent(layer)}
                {heard[layer.id] !== undefined && ` · reads ${Math.round(heard[layer.id]! * 100)} %`}
                {!layer.document.on && " · off"}
                {layer.document.alone && " · alone"}
              </small>
            </Name>
            <span className="tools">
              <Toggle
                data-variant="plain"
                aria-label={`${name} is seen`}
                isSelected={layer.document.on}
                onChange={(on) => void edits.set(layer.id, "on", on)}
              >
                {layer.document.on ? (
                  <Eye size={16} aria-hidden="true" />
                ) : (
                  <EyeOff size={16} aria-hidden="true" />
                )}
              </Toggle>
              <Button data-variant="plain" aria-label={`Move ${name} up`} onPress={() => moved(layer.id, 1)}>
                <ChevronUp size={16} aria-hidden="true" />
              </Button>
              <Button
                data-variant="plain"
                aria-label={`Move ${name} down`}
                onPress={() => moved(layer.id, -1)}
              >
                <ChevronDown size={16} aria-hidden="true" />
              </Button>
              <ActionMenu
                label={name}
                actions={[
                  { id: "alone", text: layer.document.alone ? "Show the others again" : "Show it alone" },
                  { id: "copy", text: "Copy it" },
                  { id: "keep", text: "Keep it in the library…" },
                  { id: "delete", text: "Delete it" },
                ]}
                onAction={(action) => {
                  if (action === "alone") void edits.set(layer.id, "alone", !layer.document.alone);
                  else if (action === "copy") void edits.copyLayer(layer.id);
                  else if (action === "keep") onKeep([layer.id]);
                  else void edits.removeLayer(layer.id);
                }}
              />
            </span>
          </Row>
        );
      })}
    </Rows>
  );
}
