import { DialogTrigger } from "react-aria-components";
import styled from "styled-components";

import type { CueContent } from "../../../api/cues";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../ui/Button";
import { Bubble } from "../../../ui/Sheet";
import { LineEditor } from "./LineEditor";

const Group = styled.section`
  margin-top: 10px;
  h3 {
    font-size: 14px;
    font-weight: 600;
    color: var(--quiet);
    border-bottom: 1px solid var(--line);
    padding-bottom: 2px;
  }
`;
const Line = styled(Button)`
  && {
    width: 100%;
    display: grid;
    grid-template-columns: 82px minmax(0, 1fr) auto;
    align-items: center;
    gap: 8px;
    min-height: 32px;
    padding: 0 4px;
    border: 0;
    text-align: left;
    justify-content: stretch;
    font-weight: 400;
    color: var(--quiet);
  }
  &&[data-written] {
    color: var(--bone);
    font-weight: 650;
  }
  &&[data-pressed],
  &&[data-pressed][data-written] {
    color: var(--on-bone);
  }
  .value {
    display: flex;
    align-items: center;
    gap: 6px;
    overflow: hidden;
  }
  .swatch {
    display: flex;
    flex: none;
    border: 1px solid var(--edge);
    height: 18px;
    width: 26px;
  }
  .swatch i {
    flex: 1;
  }
  small {
    font-size: 13px;
    font-weight: 400;
  }
`;
const Empty = styled.p`
  color: var(--quiet);
  margin-top: 10px;
`;

type Line_ = Schemas["ContentLine"];

/** What a line has, in words: the palette, else the value. */
function valueWords(line: Line_): string {
  if (line.palette) return line.palette;
  if (line.attribute === "colour")
    return line.colours.length === 1 ? line.colours[0]! : `${line.colours.length} colours`;
  return line.words;
}

/** Values by group: changed ones first and heavier, carried ones quieter, with the cue that they come from. */
export function ContentGroups({ cue }: { cue: CueContent }) {
  if (!cue.groups.length) return <Empty>No values hold in this cue.</Empty>;
  return cue.groups.map((group) => {
    const lines = [...group.lines].sort((a, b) => Number(b.written) - Number(a.written));
    return (
      <Group key={group.name} aria-label={group.name}>
        <h3>{group.name}</h3>
        {lines.map((line) => (
          <DialogTrigger key={`${line.attribute} ${line.origin} ${line.written}`}>
            <Line data-written={line.written || undefined}>
              <span>{line.label}</span>
              <span className="value">
                {line.colours.length > 0 && (
                  <span className="swatch" aria-hidden="true">
                    {line.colours.map((colour) => (
                      <i key={colour} style={{ background: colour }} />
                    ))}
                  </span>
                )}
                <span>
                  {valueWords(line)}
                  {line.heads.length < group.heads && <small> on {line.heads.length}</small>}
                </span>
              </span>
              <small>
                {line.only_here ? "only here" : line.origin !== null ? `from ${line.origin}` : ""}
              </small>
            </Line>
            <Bubble placement="left top">
              <LineEditor cue={cue} line={line} group={group.name} />
            </Bubble>
          </DialogTrigger>
        ))}
      </Group>
    );
  });
}
