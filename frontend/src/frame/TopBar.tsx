import { Tab, TabList } from "react-aria-components";
import styled from "styled-components";

import { useShow } from "../api/queries";
import { VIEW_TITLES, VIEWS } from "../state";
import { MasterTools } from "./MasterTools";
import { TempoTools } from "./TempoTools";
import { UndoTools } from "./UndoTools";

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 0 12px;
  height: 52px;
  border-bottom: 1px solid var(--line);
  flex: none;
  @media (max-width: 1180px) {
    gap: 8px;
  }
`;
const Name = styled.h1`
  font-size: 16px;
  font-weight: 700;
  white-space: nowrap;
`;
const Views = styled(TabList)`
  display: flex;
  height: 52px;
`;
const View_ = styled(Tab)`
  display: flex;
  align-items: center;
  padding: 3px 12px 0;
  @media (max-width: 1180px) {
    padding: 3px 8px 0;
  }
  cursor: pointer;
  border-bottom: 3px solid transparent;
  color: var(--quiet);
  outline-offset: -4px;
  &[data-hovered] {
    color: var(--bone);
  }
  &[data-selected] {
    color: var(--bone);
    font-weight: 650;
    border-color: var(--bone);
  }
`;
const Spacer = styled.div`
  flex: 1;
`;

/** Show, views, tempo, output, masters, undo: one line. */
export function TopBar() {
  const { data: name } = useShow((show) => show.name);
  return (
    <Bar>
      <Name>{name ?? "Zarabanda"}</Name>
      <Views aria-label="Views">
        {VIEWS.map((one) => (
          <View_ key={one} id={one}>
            {VIEW_TITLES[one]}
          </View_>
        ))}
      </Views>
      <Spacer />
      <TempoTools />
      <MasterTools />
      <UndoTools />
    </Bar>
  );
}
