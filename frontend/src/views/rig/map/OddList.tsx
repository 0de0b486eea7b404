import styled from "styled-components";

import type { Schemas } from "../../../api/client";
import { Button } from "../../../ui/Button";
import { rigEdits } from "../../../api/rigEdits";

const Frame = styled.section`
  border-top: 1px dashed var(--edge);
  padding: 8px 0;
  overflow: auto;
  min-height: 48px;
  h3 {
    margin-bottom: 4px;
  }
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 10px;
    min-height: 36px;
    font-size: 14px;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  button.what {
    all: unset;
    cursor: pointer;
    flex: 1;
  }
  button.what:focus-visible {
    outline: 2px solid var(--focus);
  }
`;

interface Props {
  odd: readonly Schemas["OddOne"][];
  onSelect: (numbers: number[]) => void;
}

/** All that is odd about the rig, each with the lights that it concerns and what mends it. */
export function OddList({ odd, onSelect }: Props) {
  if (!odd.length)
    return (
      <Frame>
        <p>Nothing is odd: every fixture has an address of its own, and a place.</p>
      </Frame>
    );
  return (
    <Frame aria-label="Things to look at">
      <h3>
        {odd.length} thing{odd.length === 1 ? "" : "s"} to look at
      </h3>
      <ul>
        {odd.slice(0, 60).map((one, n) => (
          <li key={n}>
            <button className="what" onClick={() => onSelect(one.numbers)}>
              {one.text}
            </button>
            {one.mend && (
              <Button
                data-variant="small"
                onPress={() => void rigEdits.address(one.ask as unknown as Schemas["GiveAddresses"])}
              >
                {one.mend}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Frame>
  );
}
