import { useEffect, useMemo, useRef, useState } from "react";
import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";

import { api, take, type Schemas } from "../../../api/client";
import { useWays } from "../../../api/colour";
import { edited } from "../../../api/hand";
import { Newest } from "../../../api/newest";
import { tell, usePalettes, useShow } from "../../../api/queries";
import { ActionMenu } from "../../../ui/ActionMenu";
import { Toggle } from "../../../ui/Button";
import { Choice } from "../../../ui/Choice";
import { Slider } from "../../../ui/Slider";
import { colourOf } from "../palettes/palettes";
import { useBackAndForth } from "./useBackAndForth";
import { WayRow } from "./WayRow";

const Panel = styled.section`
  display: grid;
  gap: 2px;
  align-content: start;
  button {
    min-height: 24px;
    line-height: 1.1;
    &[data-variant="small"] {
      min-height: 24px;
    }
    padding: 0 8px;
    font-size: 14px;
  }
`;
const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 14px;
  i {
    width: 22px;
    height: 22px;
    border: 1px solid var(--edge);
    flex: none;
  }
`;
const Rows = styled.div`
  display: grid;
`;
const Told = styled.p`
  font-size: 13px;
  line-height: 1.2;
  color: var(--quiet);
  flex: 1;
`;
const Share = styled.span`
  flex: none;
  width: 3.2em;
  text-align: right;
  font-family: var(--numbers);
`;
type Shown = Schemas["ShowOnWay"];
const NOBODY = "nobody";
const SELECTION = "the selection";

interface Props {
  /** The colour that the selection has, `#rrggbb`. */
  start: string;
  heads: string[];
}

/** Ways between two colours, space by space, under one scrubber; seen on stage on groups at once. */
export function WaysPanel({ start, heads }: Props) {
  const { data: kept } = usePalettes();
  const { data: groups = [] } = useShow((show) => show.groups);
  const ends = useMemo(() => (kept?.palettes ?? []).filter((one) => colourOf(one)), [kept]);
  const [endId, setEndId] = useState<number | null>(null);
  const end = ends.find((one) => one.id === endId) ?? ends.find((one) => colourOf(one) !== start) ?? ends[0];
  const { data } = useWays(start, end ? colourOf(end)! : start);
  const [kind, setKind] = useState<"adds" | "filters">("adds");
  const [chosen, setChosen] = useState("oklch");
  const [seenOn, setSeenOn] = useState<Record<string, string>>({});
  const [share, setShare] = useState(0.5);
  const [plays, setPlays] = useState(false);
  const shows = useRef(false);
  const shown = useMemo(
    () => new Newest((body: Shown) => take(api.POST("/api/colour/show-on-way", { body })), tell),
    [],
  );
  useBackAndForth(plays, share, setShare);
  const on = useMemo(() => {
    const keys = (name: string) =>
      name === SELECTION ? heads : (groups.find((one) => one.name === name)?.heads ?? []);
    const every = Object.entries(seenOn).map(([way, name]) => ({ way, heads: keys(name) }));
    return every.filter((one) => one.heads.length);
  }, [seenOn, groups, heads]);
  const to = end ? colourOf(end)! : start;
  useEffect(() => {
    if (on.length) {
      shows.current = true;
      void shown.show({ start, end: to, share, on });
    } else if (shows.current) {
      shows.current = false;
      shown.drop();
      void take(api.POST("/api/colour/look-away")).catch(tell);
    }
  }, [on, share, start, to, shown]);
  useEffect(
    () => () => {
      if (shows.current) void take(api.POST("/api/colour/look-away")).catch(tell);
    },
    [],
  );
  if (!data || !end) return <Told>Keep a colour as a palette first: it is where the ways go to.</Told>;
  const way = data.ways.find((one) => one.name === chosen) ?? data.ways[0]!;
  const { middle, passes, dip } = way[kind];
  const forPalette = () =>
    void edited(() =>
      take(
        api.POST("/api/palettes/{palette_id}/rename", {
          params: { path: { palette_id: end.id } },
          body: { way: chosen },
        }),
      ),
    );
  const forShow = () => void edited(() => take(api.PUT("/api/colour/way", { body: { way: chosen } })));
  return (
    <Panel aria-label="Ways between two colours">
      <Line>
        <i style={{ background: start }} aria-hidden="true" /> to
        <i style={{ background: to }} aria-hidden="true" />
        <Choice
          label="Where the ways go"
          hideLabel
          options={ends.map(({ id, name }) => ({ id, text: name }))}
          value={end.id}
          onChange={(id) => setEndId(Number(id))}
        />
        <ToggleButtonGroup
          aria-label="Seen on lights that"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[kind]}
          onSelectionChange={([key]) => setKind(key as "adds" | "filters")}
        >
          <Toggle id="adds">add light</Toggle>
          <Toggle id="filters">filter it</Toggle>
        </ToggleButtonGroup>
        <ActionMenu
          label="Take this way"
          opener="Take it for …"
          variant="small"
          onAction={(id) => (id === "palette" ? forPalette() : forShow())}
          actions={[
            {
              id: "palette",
              text: `${end.name}: whatever goes there${end.way === chosen ? " (goes this way)" : ""}`,
              disabled: end.way === chosen,
            },
            {
              id: "show",
              text: `The show, where nothing says otherwise${data.way === chosen ? " (goes this way)" : ""}`,
              disabled: data.way === chosen,
            },
          ]}
        />
      </Line>
      <Rows role="radiogroup" aria-label="Way">
        {data.ways.map((one) => (
          <WayRow
            key={one.name}
            way={one}
            seen={one[kind]}
            share={share}
            isChosen={one.name === way.name}
            onChoose={() => setChosen(one.name)}
            seenOn={seenOn[one.name] ?? NOBODY}
            options={[NOBODY, ...(heads.length ? [SELECTION] : []), ...groups.map((group) => group.name)]}
            onSeenOn={(name) => setSeenOn((before) => ({ ...before, [one.name]: name }))}
          />
        ))}
      </Rows>
      <Line>
        <Toggle isSelected={plays} onChange={setPlays}>
          Play
        </Toggle>
        <Slider
          bare
          label="How far on the way"
          minValue={0}
          maxValue={1}
          step={0.01}
          value={share}
          onChange={setShare}
        />
        <Share>{Math.round(share * 100)} %</Share>
      </Line>
      <Told aria-live="polite">
        Half way: {middle};{" "}
        {passes.length ? `passes ${passes.length} hues: ${passes.join(", ")}` : "passes no other hue"};{" "}
        {dip >= 1 ? `dips ${Math.round(dip)} % in lightness` : "never darker than its ends"}.
      </Told>
    </Panel>
  );
}
