import { useState } from "react";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import { BasePanel } from "./BasePanel";
import { ScopePanel } from "./ScopePanel";
import type { Editor } from "./useEditor";

const Frame = styled(Tabs)`
  display: flex;
  flex-direction: column;
`;
const Kinds = styled(TabList)`
  display: flex;
  border-bottom: 1px solid var(--line);
  position: sticky;
  top: 0;
  background: var(--ink);
  z-index: 1;
`;
const Kind = styled(Tab)`
  padding: 8px 16px;
  min-height: 40px;
  cursor: pointer;
  color: var(--quiet);
  border-bottom: 2px solid transparent;
  outline-offset: -3px;
  &[data-selected] {
    color: var(--bone);
    border-color: var(--bone);
    font-weight: 650;
  }
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
      <Kinds aria-label="Beside the effect">
        <Kind id="scope">Scope</Kind>
        <Kind id="base">Base</Kind>
      </Kinds>
      <Panel key={tab} id={tab}>
        {tab === "scope" ? <ScopePanel editor={editor} runKey={runKey} /> : <BasePanel />}
      </Panel>
    </Frame>
  );
}
