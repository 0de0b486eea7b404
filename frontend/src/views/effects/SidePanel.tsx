import { useState } from "react";
import { TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import { TabName, TabRow } from "../../ui/Tabs";
import { BasePanel } from "./BasePanel";
import { ScopePanel } from "./ScopePanel";
import type { Editor } from "./useEditor";

const Frame = styled(Tabs)`
  display: flex;
  flex-direction: column;
`;
const Panel = styled(TabPanel)`
  outline-offset: -2px;
`;

/** Beside an effect: its scope, or the base that it moves. */
export function SidePanel({ editor, runKey }: { editor: Editor | null; runKey: string | null }) {
  const [tab, setTab] = useState("scope");
  if (!editor) return <BasePanel />;
  return (
    <Frame selectedKey={tab} onSelectionChange={(key) => setTab(String(key))}>
      <TabRow aria-label="Beside the effect">
        <TabName id="scope">Scope</TabName>
        <TabName id="base">Base</TabName>
      </TabRow>
      <Panel key={tab} id={tab}>
        {tab === "scope" ? <ScopePanel editor={editor} runKey={runKey} /> : <BasePanel />}
      </Panel>
    </Frame>
  );
}
