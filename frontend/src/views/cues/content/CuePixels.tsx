import styled from "styled-components";

import { useCueEdits, type CueContent } from "../../../api/cues";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../ui/Button";
import { ShareField } from "../../../ui/ShareField";

const Section = styled.section`
  margin-top: 14px;
  h3 {
    font-size: 14px;
    font-weight: 600;
    color: var(--quiet);
    border-bottom: 1px solid var(--line);
    line-height: 30px;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 96px auto;
    gap: 8px;
    align-items: center;
    padding: 4px 0;
  }
  small {
    display: block;
    color: var(--quiet);
  }
  [data-carried] {
    color: var(--quiet);
  }
`;
type Use = CueContent["pixels"][number];
type Change = Schemas["CuePixels"];

const same = (one: Use, other: Use) => one.map === other.map && one.picture === other.picture;
const DO = { "comes in": "start", changes: "change", stops: "stop" } as const;
const changeOf = (one: Use): Change => ({
  do: one.state === "runs on" ? "change" : DO[one.state],
  map: one.map,
  picture: one.picture,
  share: one.share,
  over: one.over,
});

/** Pixel maps that come in with a cue, change, stop, or run on from an earlier one. */
export function CuePixels({ cue }: { cue: CueContent }) {
  const edits = useCueEdits();
  if (!cue.pixels.length) return null;
  const own = cue.pixels.filter((one) => one.state !== "runs on");
  const put = (of: Use, change: Change | null) =>
    void edits.pixels(cue.id, [
      ...own.filter((one) => !same(one, of)).map(changeOf),
      ...(change ? [change] : []),
    ]);
  return (
    <Section aria-label="Pixel maps">
      <h3>Pixel maps</h3>
      <ul>
        {cue.pixels.map((one) => (
          <li key={`${one.map} ${one.picture}`}>
            <span data-carried={one.state === "runs on" || undefined}>
              {one.words}
              <small>
                {one.state}
                {one.state === "runs on" && ` from cue ${one.from_cue}`}
              </small>
            </span>
            {one.state === "stops" ? (
              <span />
            ) : (
              <ShareField
                label={`Share of ${one.words}`}
                hideLabel
                value={one.share}
                onChange={(share) => put(one, { ...changeOf(one), share: share || 0 })}
              />
            )}
            <Button
              data-variant="small"
              onPress={() => put(one, one.state === "runs on" ? { ...changeOf(one), do: "stop" } : null)}
            >
              {one.state === "runs on" ? "Stop it here" : "Take it out"}
            </Button>
          </li>
        ))}
      </ul>
    </Section>
  );
}
