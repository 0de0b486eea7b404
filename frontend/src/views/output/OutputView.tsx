import { TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import { desk, useDesk, type OutputTab } from "../../state";
import { TabName, TabRow } from "../../ui/Tabs";
import { DevicesPanel } from "./devices/DevicesPanel";
import { HealthPanel } from "./health/HealthPanel";
import { RecordingsPanel } from "./recordings/RecordingsPanel";
import { RoutesPanel } from "./routes/RoutesPanel";
import { SimulatorsPanel } from "./SimulatorsPanel";
import { SlotsPanel } from "./slots/SlotsPanel";
import { TimecodePanel } from "./timecode/TimecodePanel";

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

/** What goes out: where to, slot by slot, what nodes get of it, and how all of it does. */
export function OutputView() {
  const tab = useDesk((state) => state.outputTab);
  return (
    <Frame selectedKey={tab} onSelectionChange={(key) => desk.showOutput(key as OutputTab)}>
      <TabRow aria-label="Output">
        <TabName id="slots">Slots</TabName>
        <TabName id="routes">Routes</TabName>
        <TabName id="devices">Devices</TabName>
        <TabName id="recordings">Recordings</TabName>
        <TabName id="timecode">Timecode, sound</TabName>
        <TabName id="simulators">Simulators</TabName>
        <TabName id="health">Health</TabName>
      </TabRow>
      <Panel id="slots">
        <SlotsPanel />
      </Panel>
      <Panel id="routes">
        <RoutesPanel />
      </Panel>
      <Panel id="devices">
        <DevicesPanel />
      </Panel>
      <Panel id="recordings">
        <RecordingsPanel />
      </Panel>
      <Panel id="timecode">
        <TimecodePanel />
      </Panel>
      <Panel id="simulators">
        <SimulatorsPanel />
      </Panel>
      <Panel id="health">
        <HealthPanel />
      </Panel>
    </Frame>
  );
}
