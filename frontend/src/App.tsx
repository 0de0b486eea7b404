import { useMemo, useState } from "react";
import { TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import { api, take } from "./api/client";
import { useEdit } from "./api/queries";
import { NowRibbon } from "./frame/NowRibbon";
import { SelectionBar } from "./frame/SelectionBar";
import { ShortcutSheet } from "./frame/ShortcutSheet";
import { useShortcuts } from "./frame/shortcuts";
import { TopBar } from "./frame/TopBar";
import { useUndo } from "./frame/UndoTools";
import { useConnection } from "./live/socket";
import { Stage } from "./stage/Stage";
import { desk, useDesk, type View } from "./state";
import { say, Toasts } from "./ui/Toasts";
import { BuskView } from "./views/busk/BuskView";
import { EffectsView } from "./views/effects/EffectsView";
import { OutputView } from "./views/output/OutputView";
import { RigView } from "./views/rig/RigView";

const Page = styled(Tabs)`
  display: flex;
  flex-direction: column;
  height: 100%;
  main {
    flex: 1;
    min-height: 0;
    overflow: hidden;
  }
  main > [role="tabpanel"] {
    height: 100%;
    outline-offset: -2px;
  }
`;
const Lost = styled.p`
  background: var(--bone);
  color: var(--on-bone);
  padding: 6px 16px;
  text-align: center;
  flex: none;
`;
const SHOWN = { rig: RigView, effects: EffectsView, busk: BuskView, output: OutputView };

/** The frame of the page: bar, stage, selection, view, ribbon. */
export function App() {
  const view = useDesk((state) => state.view);
  const { connected, everConnected, engine } = useConnection();
  const [help, setHelp] = useState(false);
  const { undo, redo } = useUndo();
  const clear = useEdit(async () => {
    await take(api.DELETE("/api/draft"));
    useDesk.setState(({ effect }) => (effect?.key?.startsWith("draft:") ? { effect: null } : {}));
    say("Cleared the draft. Undo brings it back.", "done");
  });
  const clearDraft = clear.mutate;
  const commands = useMemo(
    () => ({ undo, redo, clearDraft: () => clearDraft(undefined), help: () => setHelp(true) }),
    // undo and redo are made anew on each render, but do the same
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [clearDraft],
  );
  useShortcuts(commands);
  const Shown = SHOWN[view];
  return (
    <Page selectedKey={view} onSelectionChange={(key) => desk.show(key as View)}>
      <TopBar />
      {everConnected && !connected && (
        <Lost role="alert">
          Not connected to Zarabanda. The lights go on; this page connects again by itself.
        </Lost>
      )}
      {connected && !engine && (
        <Lost role="alert">The engine is being started again; it goes on where it was.</Lost>
      )}
      <Stage />
      <SelectionBar />
      <main>
        <TabPanel key={view} id={view}>
          <Shown />
        </TabPanel>
      </main>
      <NowRibbon />
      <ShortcutSheet isOpen={help} onClose={() => setHelp(false)} />
      <Toasts />
    </Page>
  );
}
