import { useRef, useState } from "react";
import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { Toggle } from "../../ui/Button";
import { ScopePicture } from "./ScopePicture";
import { dragged, type Anchor } from "./scopes";
import type { Editor } from "./useEditor";

const Panel = styled.section`
  padding: 8px 16px 16px;
  display: grid;
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
const Facts = styled.p`
  color: var(--quiet);
  font-size: 14px;
`;
const Lanes = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 2px;
  font-size: 14px;
  li {
    display: grid;
    grid-template-columns: 56px 1fr;
    gap: 8px;
  }
  span:first-child {
    color: var(--quiet);
  }
  span:last-child {
    font-family: var(--numbers);
    overflow-wrap: anywhere;
  }
`;
const MOST_LANES = 12;
const number = (value: number) => `${Math.round(value * 10) / 10}`;

/** Heads by lane, in lane order. */
function lanesOf(heads: readonly string[], lanes: readonly number[]): [number, string[]][] {
  const found = new Map<number, string[]>();
  heads.forEach((head, n) => found.set(lanes[n]!, [...(found.get(lanes[n]!) ?? []), head]));
  return [...found].sort(([a], [b]) => a - b);
}

/** The form of a layer with its heads on it, and which heads share a lane. */
export function ScopePanel({ editor, runKey }: { editor: Editor; runKey: string | null }) {
  const [chosen, setChosen] = useState(0);
  const begun = useRef<{ anchor: Anchor | null; grabbed: number }>({ anchor: null, grabbed: 0 });
  const { weave, effect } = editor;
  const scope = weave?.scopes.find((one) => one.layer === chosen) ?? weave?.scopes[0];
  if (!weave || !scope)
    return (
      <Panel>
        <p>These heads cannot do what the effect moves. Select others, or none to see it on a made-up row.</p>
      </Panel>
    );
  const layers = effect.document.layers as { anchor?: Anchor; form: { kind: string } }[];
  const anchor = layers[scope.layer]?.anchor ?? null;
  const drags = scope.kind === "wave" && anchor !== null;
  const unit = scope.unit === "°" ? "°" : ` ${scope.unit}`;
  const values = scope.values[0]!;
  function drag(units: (height: number) => number, phase: "start" | "move" | "end", grabbed: number) {
    if (phase === "start") {
      begun.current = { anchor, grabbed };
      return;
    }
    const next = dragged(
      begun.current.anchor,
      units(0),
      begun.current.grabbed,
      scope!.high[0]! - scope!.low[0]!,
    );
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
      <ScopePicture scope={scope} weave={weave} runKey={runKey} onDrag={drag} drags={drags} />
      <Facts>
        {scope.kind === "wave" &&
          `Base ${number(scope.base[0]!)}${unit}, from ${number(Math.min(...values))} to ${number(Math.max(...values))}${unit}. `}
        {drags && "Drag up or down to change the depth."}
        {scope.kind === "path" && "The figure about the base; mirrored heads on the fainter one."}
        {scope.kind === "colour" && "One cycle; each dot is a head."}
      </Facts>
      <h3>
        {weave.heads.length} heads in {weave.count} lane{weave.count === 1 ? "" : "s"}
      </h3>
      <Lanes>
        {lanesOf(weave.heads, weave.lanes)
          .slice(0, MOST_LANES)
          .map(([lane, heads]) => (
            <li key={lane}>
              <span>Lane {lane + 1}</span>
              <span>
                {heads.length > 8 ? `${heads.slice(0, 7).join(" ")} … ${heads.at(-1)}` : heads.join(" ")}
              </span>
            </li>
          ))}
      </Lanes>
      {weave.count > MOST_LANES && <Facts>and {weave.count - MOST_LANES} more lanes</Facts>}
    </Panel>
  );
}
