import { ChevronLeft, ChevronRight } from "lucide-react";
import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import type { BuskRow, Section } from "../../api/busk";
import { Button, Toggle } from "../../ui/Button";
import { LEVEL, NAME, pagesOf, rooms, shownSections, type Aspect } from "./layout";

const Head = styled.div`
  display: grid;
  grid-template-columns: ${NAME}px ${LEVEL}px minmax(0, 1fr);
  gap: 6px;
  height: 40px;
  align-items: center;
  color: var(--quiet);
  font-size: 14px;
`;
const Sections = styled.div`
  display: flex;
  gap: 6px;
  min-width: 0;
  > span {
    display: flex;
    align-items: center;
    gap: 2px;
    overflow: hidden;
    white-space: nowrap;
    touch-action: none;
    height: 40px;
    user-select: none;
  }
  button {
    min-width: 40px;
    padding: 0 6px;
  }
`;
const Both = styled(ToggleButtonGroup)`
  display: flex;
  button + button {
    margin-left: -1px;
  }
`;
const TITLES: Record<Section, string> = {
  colour: "Colour",
  position: "Position",
  beam: "Beam",
  effects: "Effects",
  messages: "Messages",
};

interface Props {
  rows: BuskRow[];
  width: number;
  aspect: Aspect;
  onAspect: (aspect: Aspect) => void;
  pages: Record<string, number>;
  onTurn: (section: Section, by: number) => void;
  start: React.ReactNode;
}

const SWIPE_PX = 40;

/** A finger that goes sideways over an element turns pages: to the left onward. Pads act where they are touched, so it is over them. */
function swiped(turn: (by: number) => void) {
  return {
    onPointerDown: (event: React.PointerEvent<HTMLElement>) => {
      if ((event.target as Element).closest("button")) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      event.currentTarget.dataset.began = String(event.clientX);
    },
    onPointerUp: (event: React.PointerEvent<HTMLElement>) => {
      const began = event.currentTarget.dataset.began;
      const way = began === undefined ? 0 : event.clientX - Number(began);
      delete event.currentTarget.dataset.began;
      if (Math.abs(way) > SWIPE_PX) turn(way < 0 ? 1 : -1);
    },
  };
}

/** How many pages the pads of a section have, over all rows. */
export function pagesIn(rows: BuskRow[], section: Section, aspect: Aspect, width: number): number {
  const each = rows.map((row) => {
    const room = rooms(shownSections(row, aspect), width).find((one) => one.section === section);
    return room ? pagesOf(row[section].length, room.seen) : 1;
  });
  return Math.max(1, ...each);
}

/** Over the rows: what stands in each column, and the pages of its pads. */
export function PageHead({ rows, width, aspect, onAspect, pages, onTurn, start }: Props) {
  return (
    <Head>
      {start}
      <span>Level</span>
      <Sections>
        {rooms(["colour", aspect, "effects"], width).map(({ section, width: own }) => {
          const count = pagesIn(rows, section, aspect, width);
          const page = Math.min(pages[section] ?? 0, count - 1);
          return (
            <span
              key={section}
              style={{ width: own }}
              data-turns={section}
              {...swiped((by) => onTurn(section, by))}
            >
              {section === aspect ? (
                <Both
                  aria-label="Shown beside the colours"
                  selectionMode="single"
                  disallowEmptySelection
                  selectedKeys={[aspect]}
                  onSelectionChange={([key]) => onAspect(key as Aspect)}
                >
                  <Toggle id="position" data-variant="small">
                    Position
                  </Toggle>
                  <Toggle id="beam" data-variant="small">
                    Beam
                  </Toggle>
                </Both>
              ) : (
                TITLES[section]
              )}
              {count > 1 && (
                <>
                  <Button
                    data-variant="plain"
                    aria-label={`${TITLES[section]}: pads before`}
                    isDisabled={page === 0}
                    onPress={() => onTurn(section, -1)}
                  >
                    <ChevronLeft size={16} aria-hidden="true" />
                  </Button>
                  {page + 1}/{count}
                  <Button
                    data-variant="plain"
                    aria-label={`${TITLES[section]}: more pads`}
                    isDisabled={page === count - 1}
                    onPress={() => onTurn(section, 1)}
                  >
                    <ChevronRight size={16} aria-hidden="true" />
                  </Button>
                </>
              )}
            </span>
          );
        })}
      </Sections>
    </Head>
  );
}
