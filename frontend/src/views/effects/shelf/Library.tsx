import { memo, useEffect, useMemo, useState } from "react";
import { ListBox, ListBoxItem, Switch as AriaSwitch } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { useDraft, useEffectView, useLibrary } from "../../../api/queries";
import { desk, useDesk } from "../../../state";
import { TextField } from "../../../ui/TextField";
import { NewEffect } from "./NewEffect";
import { useAudition } from "./useAudition";
import { WeaveThumb } from "../weave/WeaveThumb";
import { Choice } from "../../../ui/Choice";
import { LibraryFiles } from "./LibraryFiles";
import { found, KINDS, ofKind } from "./search";

const Frame = styled.aside`
  display: flex;
  flex-direction: column;
`;
const Tools = styled.div`
  display: grid;
  gap: 8px;
  padding: 10px 12px;
  border-bottom: 1px solid var(--line);
  position: sticky;
  top: 0;
  background: var(--ink);
  z-index: 1;
`;
const Row = styled.div`
  display: flex;
  justify-content: space-between;
`;
const Title = styled.h2`
  padding: 10px 12px 4px;
  font-size: 14px;
  color: var(--quiet);
  font-weight: 500;
`;
const List = styled(ListBox)`
  outline: none;
`;
const Item = styled(ListBoxItem)`
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 6px 12px;
  min-height: 50px;
  cursor: pointer;
  outline: none;
  border-left: 3px solid transparent;
  &[data-hovered] {
    background: var(--raised);
  }
  &[data-selected] {
    background: var(--raised);
    border-color: var(--bone);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
    outline-offset: -2px;
  }
  .name {
    display: block;
    line-height: 1.2;
  }
  .note {
    display: block;
    color: var(--quiet);
    font-size: 13px;
    line-height: 1.25;
  }
`;
const Switch = styled(AriaSwitch)`
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 14px;
  min-height: 28px;
  cursor: pointer;
  .box {
    width: 14px;
    height: 14px;
    border: 2px solid var(--edge);
  }
  &[data-selected] .box {
    background: var(--bone);
    border-color: var(--bone);
    box-shadow: inset 0 0 0 2px var(--ink);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
  &[data-disabled] {
    color: var(--quiet);
  }
`;
const Nothing = styled.p`
  padding: 12px;
  color: var(--quiet);
`;
type Effect = Schemas["EffectView"];

interface EntryProps {
  effect: Effect;
  id: string;
  note: string;
  /** Whether it is seen on stage while the pointer or the focus is on it. */
  auditions?: boolean;
}

const Entry = memo(function Entry({ effect, id, note, auditions = false }: EntryProps) {
  const { begin, end } = useAudition(effect);
  return (
    <Item
      id={id}
      textValue={`${effect.name} ${note}`}
      {...(auditions ? { onHoverStart: begin, onHoverEnd: end, onFocus: begin, onBlur: end } : {})}
    >
      {!effect.broken && <WeaveThumb id={effect.id} document={effect.document} />}
      <div>
        <span className="name">{effect.name}</span>
        <span className="note">{effect.broken ?? note}</span>
      </div>
    </Item>
  );
});

const SETTLED_MS = 400;

/** A value once it has stayed the same for a moment: a list need not follow each step of a drag. */
function useSettled<T>(value: T | undefined): T | undefined {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(value), settled === undefined ? 0 : SETTLED_MS);
    return () => clearTimeout(timer);
  }, [value, settled]);
  return settled;
}

function DraftEntry({ draft }: { draft: Schemas["DraftEffectView"] }) {
  const effect = useSettled(useEffectView(draft.effect_id).data);
  const heads = `${draft.heads.length} head${draft.heads.length === 1 ? "" : "s"}`;
  return effect ? (
    <Entry effect={effect} id={`draft:${draft.id}`} note={`${heads}${draft.kept ? "" : ", not kept yet"}`} />
  ) : null;
}

/** Effects that run in the draft, and the library below them. */
export function Library() {
  const { data: library } = useLibrary();
  const { data: draft } = useDraft();
  const effect = useDesk((state) => state.effect);
  const auditions = useDesk((state) => state.auditions);
  const selection = useDesk((state) => state.selection.length);
  const [search, setSearch] = useState("");
  const [kind, setKind] = useState("all");
  const shown = useMemo(() => ofKind(found(library?.effects ?? [], search), kind), [library, search, kind]);
  const selected = effect ? [effect.key?.startsWith("draft:") ? effect.key : `effect:${effect.id}`] : [];
  function open(keys: "all" | Set<string | number>) {
    const [key] = keys === "all" ? [] : [...keys].map(String);
    const one = draft?.effects.find((other) => `draft:${other.id}` === key);
    if (one) desk.open(one.effect_id, `draft:${one.id}`);
    else if (key) desk.open(Number(key.slice("effect:".length)), null);
  }
  return (
    <Frame aria-label="Library">
      <Tools>
        <Row>
          <NewEffect />
          <LibraryFiles effects={shown} />
        </Row>
        <TextField
          label="Search the library"
          hideLabel
          placeholder="Search: circle, relay, calm"
          value={search}
          onChange={setSearch}
        />
        <Choice
          label="Show"
          hideLabel
          options={KINDS}
          value={kind}
          onChange={(key) => setKind(String(key))}
        />
        <Switch
          isSelected={auditions}
          isDisabled={!selection}
          onChange={(on) => useDesk.setState({ auditions: on })}
        >
          <span className="box" aria-hidden="true" />
          Preview on {selection ? `${selection} head${selection === 1 ? "" : "s"}` : "the selection"}
        </Switch>
      </Tools>
      {!!draft?.effects.length && (
        <>
          <Title>In the draft</Title>
          <List
            aria-label="Effects in the draft"
            selectionMode="single"
            selectedKeys={selected}
            onSelectionChange={open}
          >
            {draft.effects.map((one) => (
              <DraftEntry key={one.id} draft={one} />
            ))}
          </List>
        </>
      )}
      <Title>Library</Title>
      <List aria-label="Library" selectionMode="single" selectedKeys={selected} onSelectionChange={open}>
        {shown.map((one) => (
          <Entry
            key={one.id}
            effect={one}
            id={`effect:${one.id}`}
            note={((one.document.tags as string[]) ?? []).join(", ")}
            auditions
          />
        ))}
      </List>
      {library && !shown.length && (
        <Nothing>No effect has these words. Clear the search, or start a new effect.</Nothing>
      )}
    </Frame>
  );
}
