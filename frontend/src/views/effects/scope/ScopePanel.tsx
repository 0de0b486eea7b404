import { useRef, useState } from "react";
import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { Toggle } from "../../../ui/Button";
import { handlesOf } from "./handles";
import { LayerAlone } from "../editor/LayerAlone";
import { ScopeHandles } from "./ScopeHandles";
import { ScopePicture } from "./ScopePicture";
import { dragged, middleOf, type Anchor } from "./scopes";
import { CurveSlot } from "../editor/slots/CurveSlot";
import type { Editor } from "../editor/useEditor";

export const Panel = styled.section`
  padding: 8px 14px 16px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  align-content: start;
`;
const Layers = styled(ToggleButtonGroup)`
  display: flex;
  gap: 4px;
  flex-wrap: wrap;
  button {
    min-width: 40px;
  }
`;
export const Facts = styled.p`
  color: var(--quiet);
  font-size: 14px;
`;
const Stack = styled.div`
  position: relative;
`;
const number = (value: number) => `${Math.round(value * 10) / 10}`;

interface LayerDocument {
  anchor?: Anchor;
  start?: number;
  ratio?: number;
  spread?: { kind: string };
  form: { kind: string; path?: string; shape?: string; plane?: string; points?: unknown };
}

/** The form of a layer with its heads on it: seen, and changed by dragging. */
export function ScopePanel({ editor, runKey }: { editor: Editor; runKey: string | null }) {
  const [chosen, setChosen] = useState(0);
  const begun = useRef<{ anchor: Anchor | null; grabbed: number }>({ anchor: null, grabbed: 0 });
  const { weave, effect } = editor;
  const scope = weave?.scopes.find((one) => one.layer === chosen) ?? weave?.scopes[0];
  if (!weave || !scope)
    return (
      <Panel>
        <p>These heads cannot do what the effect moves. Select others, or see it on a made-up row.</p>
      </Panel>
    );
  const layer = (effect.document.layers as LayerDocument[])[scope.layer]!;
  const spread = layer.spread ?? (effect.document.spread as { kind: string });
  const anchor = layer.anchor ?? null;
  const drags = scope.kind === "wave" && anchor !== null;
  const unit = scope.unit === "°" ? "°" : ` ${scope.unit}`;
  const values = scope.values[0]!;
  const handles = handlesOf(scope.layer, layer, spread.kind === "relay", middleOf(scope), scope.duty);
  const points = layer.form.shape === "curve" ? "curve" : layer.form.path === "free" ? "points" : null;
  function drag(units: (height: number) => number, phase: "start" | "move" | "end", grabbed: number) {
    if (phase === "start") {
      begun.current = { anchor, grabbed };
      return;
    }
    const span = scope!.high[0]! - scope!.low[0]!;
    const { anchor: from, grabbed: at } = begun.current;
    const next = dragged(from, units(0), at, scope!.depth_per_unit ?? 1, 2 * span);
    const change = { operation: "set" as const, path: `layers.${scope!.layer}.anchor`, value: next };
    if (phase === "move") editor.preview(change);
    else void editor.commit(change);
  }
  return (
    <Panel aria-label="Scope">
      {weave.scopes.length > 1 && (
        <Layers
          aria-label="Layer"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[String(scope.layer)]}
          onSelectionChange={(keys) => setChosen(Number([...keys][0]))}
        >
          {weave.scopes.map((one) => (
            <Toggle
              key={one.layer}
              id={String(one.layer)}
              data-variant="small"
              aria-label={`Layer ${one.layer + 1}`}
            >
              {one.layer + 1}
            </Toggle>
          ))}
        </Layers>
      )}
      <Stack>
        <ScopePicture scope={scope} weave={weave} runKey={runKey} onDrag={drag} drags={drags} />
        <ScopeHandles handles={handles} editor={editor} />
      </Stack>
      <Facts>
        {scope.kind === "wave" &&
          `Base ${number(scope.base[0]!)}${unit}, from ${number(Math.min(...values))} to ${number(Math.max(...values))}${unit}. `}
        {drags && "Drag the wave up or down for its depth, a diamond for what it names. "}
        {layer.form.kind === "stops" && "Drag a diamond: where a stop is reached (above), and left (below). "}
        {scope.kind === "path" &&
          `Each dot is a head with its tail, ${scope.unit === "m" ? `in metres ${layer.form.plane === "floor" ? "on the floor, seen from above" : "on the upright plane"}` : "in pan and tilt about the base"}; mirrored heads on the fainter figure.`}
      </Facts>
      {points && (
        <CurveSlot
          key={`${effect.id} ${scope.layer}`}
          size={{ x: 240, y: 150 }}
          part={{
            text: "",
            slot: `layers.${scope.layer}.form.points`,
            kind: points,
            value: layer.form.points,
            label: "Points",
          }}
          editor={editor}
          typed=""
          close={() => undefined}
        />
      )}
      <LayerAlone editor={editor.hands} number={scope.layer} layer={layer} />
    </Panel>
  );
}
