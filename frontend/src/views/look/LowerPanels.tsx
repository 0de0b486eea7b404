import { useState } from "react";
import { TabList, TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import type { Rig } from "../../api/rig";
import { TabName } from "../../ui/Tabs";
import { AimPanel } from "./aim/AimPanel";
import { WaysPanel } from "./colour/WaysPanel";
import { FanPanel } from "./fan/FanPanel";
import type { Value } from "./values";

const Frame = styled(Tabs)`
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
  > [role="tabpanel"] {
    flex: 1;
    min-height: 0;
    padding-top: 4px;
    overflow: auto;
  }
`;
const Names = styled(TabList)`
  display: flex;
  gap: 4px;
  border-bottom: 1px solid var(--line);
  [role="tab"] {
    min-height: 30px;
    padding: 3px 10px;
  }
`;

interface Props {
  rig: Rig;
  values: Value[];
  selection: string[];
  fans: Schemas["FanView"][];
  /** The colour of the selection, `#rrggbb`; null: it has none. */
  colour: string | null;
  pointed: [number, number, number] | null;
}

/** Where the lights point, how values are spread over them, and how colours go to others. */
export function LowerPanels({ rig, values, selection, fans, colour, pointed }: Props) {
  const pan = values.find((one) => one.attribute === "pan");
  const shown = [...(pan ? ["aim"] : []), "fan", ...(colour ? ["ways"] : [])];
  const [wanted, setWanted] = useState("aim");
  const tab = shown.includes(wanted) ? wanted : shown[0]!;
  return (
    <Frame selectedKey={tab} onSelectionChange={(key) => setWanted(String(key))}>
      <Names aria-label="More about the selection">
        {pan && <TabName id="aim">Aim</TabName>}
        <TabName id="fan">Fan</TabName>
        {colour && <TabName id="ways">Ways between colours</TabName>}
      </Names>
      {pan && (
        <TabPanel id="aim">
          <AimPanel rig={rig} keys={pan.heads} pointed={pointed} />
        </TabPanel>
      )}
      <TabPanel id="fan">
        <FanPanel values={values} selection={selection} fans={fans} />
      </TabPanel>
      {colour && (
        <TabPanel id="ways">
          <WaysPanel start={colour} heads={selection} />
        </TabPanel>
      )}
    </Frame>
  );
}
