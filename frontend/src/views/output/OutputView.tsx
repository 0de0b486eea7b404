import { useState } from "react";
import { TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import { TabName, TabRow } from "../../ui/Tabs";
import { Health } from "./Health";
import { NodeTable } from "./NodeTable";
import { Slots } from "./Slots";

const Frame = styled(Tabs)`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
  padding: 0 20px;
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
      <TabRow aria-label="Output">
        <TabName id="slots">Universes</TabName>
        <TabName id="node">Simulated node</TabName>
        <TabName id="health">Engine</TabName>
      </TabRow>
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
