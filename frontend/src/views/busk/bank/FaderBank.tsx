import { useState } from "react";
import { Button as AriaButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { pageEdits, usePages, type Control } from "../../../api/pages";
import { useDesk } from "../../../state";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Button, Toggle } from "../../../ui/Button";
import { ActionsSheet } from "../actions/ActionsSheet";
import { NameSheet } from "../edit/NameSheet";
import { ButtonControl } from "./ButtonControl";
import { ControlSheet } from "./ControlSheet";
import { FaderControl } from "./FaderControl";
import { Label } from "./Label";
import { movedBy } from "./order";
import { useBankKeys } from "./useBankKeys";

const Page = styled.section`
  display: grid;
  grid-template-rows: 42px minmax(0, 1fr) auto;
  gap: 6px;
  padding: 4px 10px 6px;
  height: 100%;
`;
const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 0;
  white-space: nowrap;
  > :nth-child(2) {
    flex: 1;
    overflow-x: auto;
  }
`;
const Tabs = styled(ToggleButtonGroup)`
  display: flex;
  button {
    padding: 0 12px;
    gap: 8px;
  }
  button + button {
    margin-left: -1px;
  }
  kbd {
    font: 12px var(--numbers);
    opacity: 0.7;
  }
`;
const Faders = styled.div`
  display: grid;
  grid-template-columns: repeat(16, minmax(0, 1fr));
  gap: 4px;
  min-height: 0;
`;
const Buttons = styled.div`
  display: grid;
  grid-template-columns: repeat(8, minmax(0, 1fr));
  grid-auto-rows: 50px;
  gap: 4px;
`;
const Empty = styled.div`
  border: 1px dashed var(--line);
  border-radius: 2px;
  min-width: 0;
`;
/** While the page is arranged: a press opens what is there. */
const Place = styled(AriaButton)`
  border: 1px dashed var(--edge);
  border-radius: 2px;
  background: transparent;
  color: var(--bone);
  font: inherit;
  font-size: 13px;
  text-align: left;
  padding: 0;
  min-width: 0;
  overflow: hidden;
  cursor: pointer;
  &[data-hovered] {
    background: var(--raised);
  }
  &[data-taken] {
    border-style: solid;
  }
  &[data-focus-visible] {
    outline: 2px solid var(--focus);
  }
  > span:only-child {
    align-self: start;
  }
`;
const Free = styled.span`
  color: var(--quiet);
  padding: 4px 6px;
`;
interface Editing {
  control: Control | null;
  fader: boolean;
  place: number;
}

/** A page of faders and buttons. Nothing moves here by itself; what is on it is changed while it is arranged. */
export function FaderBank({ start }: { start: React.ReactNode }) {
  const { data } = usePages();
  const chosen = useDesk((state) => state.bank);
  const [arranged, setArranged] = useState(false);
  const [editing, setEditing] = useState<Editing | null>(null);
  const [actions, setActions] = useState(false);
  const [naming, setNaming] = useState<"make" | "rename" | null>(null);
  const pages = data?.pages ?? [];
  const page = pages.find((one) => one.id === chosen) ?? pages[0];
  const show = (id: number) => useDesk.setState({ bank: id });
  useBankKeys(pages, show);
  if (!data || !page) return <Page />;
  const place = (fader: boolean, number: number) => {
    const control = page.controls.find((one) => (one.mode === "fader") === fader && one.place === number);
    const where = `${fader ? "Fader" : "Button"} ${number}`;
    if (arranged)
      return (
        <Place
          key={number}
          data-taken={control ? true : undefined}
          aria-label={control ? `${where}, ${control.name}` : `${where}, empty`}
          onPress={() => setEditing({ control: control ?? null, fader, place: number })}
        >
          {control ? <Label control={control} /> : <Free>{where}</Free>}
        </Place>
      );
    if (!control) return <Empty key={number} />;
    return fader ? (
      <FaderControl key={control.key} control={control} />
    ) : (
      <ButtonControl key={control.key} control={control} />
    );
  };
  const does: Record<string, () => unknown> = {
    make: () => setNaming("make"),
    rename: () => setNaming("rename"),
    delete: () => pageEdits.remove(page.id),
    left: () =>
      pageEdits.order(
        movedBy(
          pages.map((one) => one.id),
          page.id,
          -1,
        ),
      ),
    right: () =>
      pageEdits.order(
        movedBy(
          pages.map((one) => one.id),
          page.id,
          1,
        ),
      ),
  };
  return (
    <Page aria-label={page.name}>
      <Head>
        {start}
        <Tabs
          aria-label="Pages of faders and buttons"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[page.id]}
          onSelectionChange={([key]) => key !== undefined && show(Number(key))}
        >
          {pages.map((one, n) => (
            <Toggle key={one.id} id={one.id}>
              {one.name}
              {n < 9 && <kbd aria-hidden="true">{n + 1}</kbd>}
            </Toggle>
          ))}
        </Tabs>
        <Button onPress={() => setActions(true)}>Action lists</Button>
        <Toggle isSelected={arranged} onChange={setArranged}>
          Arrange
        </Toggle>
        <ActionMenu
          label="This page"
          onAction={(id) => void does[id]?.()}
          actions={[
            { id: "make", text: "Make a page" },
            { id: "rename", text: `Rename ${page.name}` },
            pages.length > 1 && { id: "left", text: "Move it to the left" },
            pages.length > 1 && { id: "right", text: "Move it to the right" },
            { id: "delete", text: `Delete ${page.name}`, disabled: pages.length < 2 },
          ]}
        />
      </Head>
      <Faders>{places(data.faders).map((number) => place(true, number))}</Faders>
      <Buttons>{places(data.buttons).map((number) => place(false, number))}</Buttons>
      {editing && (
        <ControlSheet key={editing.control?.key} {...editing} page={page} onClose={() => setEditing(null)} />
      )}
      {actions && <ActionsSheet onClose={() => setActions(false)} />}
      {naming && (
        <NameSheet
          title={naming === "make" ? "Make a page" : "Rename the page"}
          name={naming === "make" ? "" : page.name}
          onClose={() => setNaming(null)}
          onKeep={async (name) => {
            if (naming === "rename") return pageEdits.rename(page.id, name);
            const made = await pageEdits.make(name);
            if (made) show(made.id);
            return made;
          }}
        />
      )}
    </Page>
  );
}

const places = (count: number) => Array.from({ length: count }, (_, n) => n + 1);
