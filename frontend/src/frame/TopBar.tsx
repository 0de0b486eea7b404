import { ChevronDown } from "lucide-react";
import { Tab, TabList, Tabs, type Key } from "react-aria-components";
import styled from "styled-components";

import { useShow } from "../api/queries";
import { desk, useDesk, VIEW_TITLES, VIEWS, type View } from "../state";
import { Toggle } from "../ui/Button";
import { MasterTools } from "./MasterTools";
import { TempoTools } from "./TempoTools";
import { TimecodeTool } from "./TimecodeTool";
import { UndoTools } from "./UndoTools";

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 0 12px;
  height: 52px;
  border-bottom: 1px solid var(--line);
  flex: none;
  @media (max-height: 780px) {
    height: 48px;
  }
  @media (max-width: 1320px) {
    gap: 10px;
  }
  @media (max-width: 1180px) {
    gap: 6px;
  }
  /* with more than five views there is less room for each thing */
  &[data-crowded] {
    @media (max-width: 1320px) {
      gap: 5px;
      padding: 0 8px;
      [role="tab"] {
        padding: 3px 5px 0;
      }
      .word {
        display: none;
      }
      .tempo {
        width: 100px;
      }
      .bpm input {
        width: 3.5em;
        padding-left: 2px;
      }
      .bpm [aria-hidden] {
        display: none;
      }
      .grand {
        width: 56px;
      }
      button {
        padding: 0 7px;
      }
    }
    @media (max-width: 1180px) {
      gap: 4px;
      font-size: 14px;
      h1 span,
      .percent {
        display: none;
      }
      [role="tab"] {
        padding: 3px 4px 0;
      }
      .tempo {
        width: 92px;
      }
      .grand {
        width: 44px;
      }
      button {
        padding: 0 5px;
        min-width: 30px;
      }
    }
  }
`;
const Name = styled.h1`
  font-size: 16px;
  min-width: 0;
`;
const Shows = styled(Toggle)`
  font-weight: 700;
  max-width: 15em;
  min-height: 40px;
  border-color: transparent;
  && {
    padding: 0 4px;
    width: 100%;
  }
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    border-bottom: 2px solid var(--quiet);
  }
  svg {
    display: none;
    flex: none;
  }
  @media (max-width: 1180px) {
    && {
      padding: 0;
      min-width: 24px;
    }
    svg {
      display: block;
    }
  }
`;
/** Tabs render what is in them twice, once unseen to know the tabs: so the views themselves stand outside of them. */
const Choosing = styled(Tabs)`
  display: contents;
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
  [data-covered] > &[data-selected] {
    color: var(--quiet);
    font-weight: inherit;
    border-color: transparent;
  }
`;
const Spacer = styled.div`
  flex: 1;
`;
const MANY_VIEWS = 5;

/** Show, views, tempo, output, masters, undo: one line. */
export function TopBar() {
  const view = useDesk((state) => state.view);
  const shows = useDesk((state) => state.shows);
  const { data: name } = useShow((show) => show.name);
  return (
    <Bar data-crowded={VIEWS.length > MANY_VIEWS || undefined}>
      <Name>
        <Shows
          isSelected={shows}
          onChange={desk.openShows}
          aria-label={`Shows: ${name ?? "Zarabanda"} is open`}
        >
          <span>{name ?? "Zarabanda"}</span>
          <ChevronDown size={16} aria-hidden="true" />
        </Shows>
      </Name>
      <Choosing selectedKey={view} onSelectionChange={(key: Key) => desk.show(key as View)}>
        <Views aria-label="Views" data-covered={shows || undefined}>
          {VIEWS.map((one) => (
            <View_ key={one} id={one} onPress={() => desk.show(one)}>
              {VIEW_TITLES[one]}
            </View_>
          ))}
        </Views>
      </Choosing>
      <Spacer />
      <TimecodeTool />
      <TempoTools />
      <MasterTools />
      <UndoTools />
    </Bar>
  );
}
