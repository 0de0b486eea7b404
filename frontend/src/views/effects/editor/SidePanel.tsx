import { memo, useState } from "react";
import { TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import { Scroller } from "../../../ui/Scroller";
import { TabName, TabRow } from "../../../ui/Tabs";
import { BasePanel } from "../base/BasePanel";
import { ScopePanel } from "../scope/ScopePanel";
import { SpeedPanel } from "../speed/SpeedPanel";
import { SpreadPanel } from "../spread/SpreadPanel";
import type { Editor } from "./useEditor";

const Frame = styled(Tabs)`
  display: flex;
  flex-direction: column;
  height: 100%;
  overflow: hidden;
`;
const Names = styled(TabRow)`
  gap: 0;
  > * {
    flex: 1;
    padding: 8px 4px;
    text-align: center;
  }
`;
const Panel = styled(TabPanel)`
  outline-offset: -2px;
  flex: 1;
  min-height: 0;
  display: flex;
  > * {
    flex: 1;
  }
`;

const NAMES = (
  <Names aria-label="Beside the effect">
    <TabName id="scope">Scope</TabName>
    <TabName id="spread">Spread</TabName>
    <TabName id="speed">Speed</TabName>
    <TabName id="base">Base</TabName>
  </Names>
);

interface Props {
  editor: Editor | null;
  runKey: string | null;
}

/** Beside an effect: its scope, its spread, its speed, or the base that it moves. */
export const SidePanel = memo(function SidePanel({ editor, runKey }: Props) {
  const [tab, setTab] = useState("scope");
  if (!editor) return <BasePanel />;
  const shown: Record<string, () => React.ReactNode> = {
    scope: () => <ScopePanel editor={editor} runKey={runKey} />,
    spread: () => <SpreadPanel editor={editor} />,
    speed: () => <SpeedPanel editor={editor} runKey={runKey} />,
    base: () => <BasePanel />,
  };
  return (
    <Frame selectedKey={tab} onSelectionChange={(key) => setTab(String(key))}>
      {NAMES}
      <Panel key={tab} id={tab}>
        <Scroller>{shown[tab]!()}</Scroller>
      </Panel>
    </Frame>
  );
});
