import { screen, within } from "@testing-library/react";
import type { ComponentProps } from "react";
import { describe, expect, it } from "vitest";

import type { Schemas } from "../../api/client";
import { onDemo } from "../../testing/page";
import { server } from "../../testing/server";
import { BuskRowLine } from "./rows/BuskRowLine";
import { NextChange } from "./side/NextChange";
import { Tempos } from "./side/Tempos";
import { WavesOfAll } from "./side/WavesOfAll";
import { WaysHome } from "./side/WaysHome";

type Row = Schemas["BuskRowView"];
const told = () => server.recorded("/api/busk");
const rows = (): Row[] => told().pages[0].rows;
const named = (name: string) => rows().find((one) => one.name === name)!;
const liveRow = (row: Row) => server.state.rows!.find((one) => one.id === row.id)!;

function line(row: Row, live: object = {}, more: object = {}) {
  const props = {
    row,
    rows: rows(),
    clashes: told().clashes,
    aspect: "position",
    width: 900,
    pages: {},
    ...more,
  };
  const every = server.state.rows!.map((one) => (one.id === row.id ? Object.assign({}, one, live) : one));
  return onDemo(
    <BuskRowLine
      {...(props as unknown as ComponentProps<typeof BuskRowLine>)}
      chosen={false}
      letters={false}
      number="2"
      onChoose={() => undefined}
    />,
    { rows: every } as never,
  );
}
const pad = (name: string) => screen.getByRole("button", { name: new RegExp(`: ${name}(,|$)`) });

describe("a row of the busking page", () => {
  it("acts on its heads by one press each, and lets go", async () => {
    const row = named("Rear spots");
    const { user, actions } = line(row);
    const colour = row.colour[0]!;
    await user.click(pad(colour.name));
    await user.click(screen.getByRole("button", { name: "Rear spots: none, colour" }));
    const effect = row.effects[0]!;
    await user.click(pad(effect.name));
    expect(actions()).toEqual([
      { do: "pad", row: row.id, pad: colour.id, down: true },
      { do: "no-pad", row: row.id, section: "colour" },
      { do: "pad", row: row.id, pad: effect.id, down: true },
    ]);
  });
  it("lets go of a pad that acts while it is held", async () => {
    const row = named("Rear spots");
    row.effects[0]!.while_held = true;
    const { user, actions } = line(row);
    await user.click(pad(row.effects[0]!.name));
    expect(actions().map((one) => (one as { down: boolean }).down)).toEqual([true, false]);
  });
  it("shows what it holds, what is covered, what is on, and what waits", () => {
    const row = named("Rear spots");
    const [held, covered] = row.colour;
    line(row, {
      held: [{ pad: held!.id, covered: 0 }, { pad: covered!.id, covered: 1 }],
      on: [row.effects[1]!.id],
      waiting: [[row.position[0]!.id, null]],
    }); // prettier-ignore
    expect(pad(held!.name)).toHaveAttribute("aria-pressed", "true");
    expect(pad(covered!.name)).toHaveAccessibleName(/held, but covered by something later/);
    expect(pad(row.effects[1]!.name)).toHaveAttribute("aria-pressed", "true");
    expect(pad(row.effects[0]!.name)).toHaveAttribute("aria-pressed", "false");
    expect(pad(row.position[0]!.name)).toHaveAccessibleName(/waits for its beat/);
    expect(screen.getByRole("button", { name: "Rear spots: none, colour" })).toHaveAttribute(
      "aria-pressed",
      "false",
    );
    expect(screen.getByRole("button", { name: "Rear spots: none, position" })).toHaveAttribute(
      "aria-pressed",
      "true",
    );
  });
  it("says that a pad is the hand's while a song waits, and that one does nothing", () => {
    const row = named("Rear spots");
    const [mine, gone] = row.colour;
    gone!.gone = "its palette is gone";
    const page = line(row);
    const hands = [{ subject: `pad:${row.id}:${mine!.id}`, name: "Coral" }];
    page.tell({ songs: [{ timeline: 1, leaving: false, speed: 1, hands }] as never });
    expect(pad(mine!.name)).toHaveAccessibleName(/yours: the song waits/);
    expect(pad(gone!.name)).toHaveAccessibleName(/its palette is gone/);
    expect(pad(gone!.name)).toHaveTextContent("gone");
  });
  it("says that its lights are dark, and what it holds of what is not shown", () => {
    const row = named("Rear spots");
    const beam = row.beam[0]!;
    line(row, { dark: true, held: [{ pad: beam.id, covered: 0 }] });
    const name = screen.getByRole("button", { name: /^Rear spots / });
    expect(name).toHaveTextContent(`dark · ${beam.name} · ${row.lights}`);
  });
  it("warns of colours that are hard on the eye beside another row's", () => {
    const [a, b] = [named("Rear spots"), named("Mid washes")];
    const clashes = told().clashes as Record<string, number[]>;
    const mine = a.colour.find((one) => clashes[one.palette!]?.length)!;
    const theirs = b.colour.find((one) => clashes[mine.palette!]!.includes(one.palette!))!;
    const page = line(a);
    const holds = { ...liveRow(b), dark: false, held: [{ pad: theirs.id, covered: 0 }] };
    page.tell({
      rows: server.state.rows!.map((one) => (one.id === b.id ? holds : { ...one, dark: false })) as never,
    });
    expect(pad(mine.name)).toHaveAttribute(
      "data-clash",
      `hard on the eye beside ${theirs.name} of Mid washes`,
    );
  });
  it("moves its level, and haze has its own faders", async () => {
    const row = named("Rear spots");
    const page = line(row, { level: 0.4 });
    const level = screen.getByRole("slider", { name: "Rear spots: level" });
    expect(level).toHaveValue("40");
    level.focus();
    await page.user.keyboard("{ArrowRight}");
    expect(page.actions()).toEqual([{ do: "row-level", row: row.id, value: 0.41 }]);
    page.unmount();
    const haze = rows().find((one) => one.kind === "haze")!;
    const hazy = line(haze, { values: { haze: 30, fan_speed: 10 } });
    const fan = screen.getByRole("slider", { name: `${haze.name}: fan` });
    expect(fan).toHaveValue("10");
    fan.focus();
    await hazy.user.keyboard("{ArrowLeft}");
    expect(hazy.actions()).toEqual([{ do: "row-value", row: haze.id, attribute: "fan_speed", value: 9 }]);
  });
});

describe("beside the rows", () => {
  it("what the next change takes and waits for", async () => {
    const { user, actions } = onDemo(<NextChange />);
    await user.click(screen.getByRole("radio", { name: "on the bar" }));
    screen.getByRole("slider", { name: "Next change takes" }).focus();
    await user.keyboard("{End}");
    screen.getByRole("slider", { name: "Next change of position takes" }).focus();
    await user.keyboard("{End}");
    expect(actions()).toEqual([
      { do: "next-change", waits: "bar" },
      { do: "next-change", seconds: 20 },
      { do: "next-change", position_s: 20 },
    ]);
  });
  it("the wave of all, back to their own by a second tap", async () => {
    const page = onDemo(<WavesOfAll />);
    await page.user.click(screen.getByRole("radio", { name: "rise" }));
    page.tell({ busk: { ...server.state.busk!, shape: "rise" } });
    await page.user.click(screen.getByRole("radio", { name: "rise" }));
    await page.user.click(screen.getByRole("button", { name: /Travel of all/ }));
    await page.user.click(await screen.findByRole("option", { name: "there and back" }));
    expect(page.actions()).toEqual([
      { do: "all-waves", shape: "rise" },
      { do: "all-waves", shape: "", spread: "", travel: "" },
      { do: "all-waves", travel: "back-and-forth" },
    ]);
  });
  it("the ways home, told before they are gone, and brought back", async () => {
    const row = named("Mid washes");
    const page = onDemo(<WaysHome row={row} />, { busk: { ...server.state.busk!, bring_back: "" } });
    expect(screen.getByRole("button", { name: "Bring back" })).toBeDisabled();
    await page.user.hover(screen.getByRole("button", { name: "Release row" }));
    expect(screen.getByRole("status")).toHaveTextContent("Mid washes lets go, in 2 s.");
    for (const name of ["Tempos back", "Stop effects", "Release row", "Release all"])
      await page.user.click(screen.getByRole("button", { name }));
    page.tell({ busk: { ...server.state.busk!, bring_back: "5 effects went", bring_back_until: 1e12 } });
    await page.user.click(screen.getByRole("button", { name: "Bring back" }));
    expect(page.actions()).toEqual([
      { do: "tempos-back" },
      { do: "stop-all" },
      { do: "release-row", row: row.id },
      { do: "release-all", seconds: 2 },
      { do: "bring-back" },
    ]);
  });
  it("the tempos: tapped, halved, held, following another, each said", async () => {
    const page = onDemo(<Tempos />);
    await page.user.click(screen.getByRole("button", { name: "Tap Level" }));
    await page.user.click(screen.getByRole("button", { name: /Colour, choose$/ }));
    const more = within(screen.getByRole("group", { name: "Colour, more" }));
    await page.user.click(more.getByRole("button", { name: "½ of Colour" }));
    await page.user.click(more.getByRole("button", { name: "Hold Colour" }));
    await page.user.click(more.getByRole("button", { name: "Colour back" }));
    await page.user.click(more.getByRole("button", { name: "Colour: more" }));
    await page.user.click(await screen.findByRole("menuitem", { name: "Follow Movement, ½ ×" }));
    expect(page.actions()).toEqual([
      { do: "tap", tempo: "Level" },
      { do: "tempo-times", tempo: "Colour", factor: 0.5 },
      { do: "hold-tempo", tempo: "Colour", on: true },
      { do: "tempos-back", tempo: "Colour" },
      { do: "follow-tempo", tempo: "Colour", main: "Movement", ratio: 0.5 },
    ]);
    const tempos = server.state.tempos.map((one) =>
      one.name === "Colour" ? { ...one, follows: "Movement", ratio: 0.5 } : one,
    );
    page.tell({ tempos } as never);
    expect(screen.getByText("Colour follows Movement, ½ ×")).toBeVisible();
  });
});
