import { useState } from "react";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import { Health } from "./Health";
import { NodeTable } from "./NodeTable";
import { Slots } from "./Slots";

const Frame = styled(Tabs)`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
  padding: 0 20px;
`;
const Kinds = styled(TabList)`
  display: flex;
  gap: 4px;
  border-bottom: 1px solid var(--line);
`;
const Kind = styled(Tab)`
  padding: 8px 14px;
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
  overflow: auto;
  min-height: 0;
  outline-offset: -2px;
`;

/** What goes out: slots of a universe live, what the node gets, how the engine is. */
export function OutputView() {
  const [tab, setTab] = useState("slots");
  return (
    <Frame selectedKey={tab} onSelectionChange={(key) => setTab(String(key))}>
      <Kinds aria-label="Output">
        <Kind id="slots">Universes</Kind>
        <Kind id="node">Simulated node</Kind>
        <Kind id="health">Engine</Kind>
      </Kinds>
      <Panel id="slots">
        <Slots />
      </Panel>
      <Panel id="node">
        <NodeTable />
      </Panel>
      <Panel id="health">
        <Health />
      </Panel>
    </Frame>
  );
}
