import { screen, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import type { LiveState } from "../live/socket";
import { useDesk } from "../state";
import { onDemo } from "../testing/page";
import { server } from "../testing/server";
import { NowRibbon } from "./NowRibbon";

const QUIET: Partial<LiveState> = {
  running: [], lists: [], specials: [], songs: [], looks: [], overlays: [], pixels: [], actions: [], stand_ins: [],
}; // prettier-ignore
const special = { id: 4, name: "Singer", on: true, phase: "on", until: 0, lights: 4, of: 4, others: 0 };

describe("the now ribbon", () => {
  it("has a chip for each thing that runs, with where it came from, and stops it", async () => {
    const page = onDemo(<NowRibbon />);
    const [first] = server.state.running;
    const chip = await screen.findByRole("button", { name: `Stop ${first!.name}` });
    expect(screen.getAllByRole("button", { name: /^Stop (?!all)/ })).toHaveLength(
      server.state.running.length,
    );
    await page.user.click(chip);
    await page.user.click(screen.getByRole("button", { name: "Stop all effects" }));
    expect(page.actions()).toEqual([{ do: "stop", key: first!.key }, { do: "stop-all" }]);
  });
  it("says when nothing runs, and what could", () => {
    const page = onDemo(<NowRibbon />, QUIET);
    expect(screen.getByText(/^Nothing runs\. Press go in Cues/)).toBeVisible();
    expect(screen.getByRole("button", { name: "Stop all effects" })).toBeDisabled();
    page.tell({ specials: [special] as never });
    expect(screen.queryByText(/^Nothing runs/)).toBeNull();
  });
  it.each([
    [{ specials: [special] }, "Singer: home", { do: "special", special: 4, on: false }],
    [{ stand_ins: [{ light: 101, by: 104 }] }, "Give 101 back", { do: "stand-in", light: 101, by: null }],
    [
      { overlays: [{ id: 9, name: "Rose over", on: true, share: 0.4, level: 0.4, until: null }] },
      "Take out Rose over",
      { do: "overlay", overlay: 9, on: false },
    ],
    [
      { looks: [{ control: "control:7", name: "Swirl", source: "Button 3", look: 2 }] },
      "Let go of Swirl",
      { do: "release-control", control: "control:7" },
    ],
    [
      { songs: [{ timeline: 2, name: "Saltworks", leaving: false, speed: 1, position: 60, hands: [] }] },
      "Take Saltworks off the stage",
      { do: "leave-song", seconds: 2 },
    ],
  ])("lets go of each by one press: %#", async (told, button, action) => {
    const page = onDemo(<NowRibbon />, { ...QUIET, ...(told as unknown as Partial<LiveState>) });
    await page.user.click(await screen.findByRole("button", { name: button }));
    expect(page.actions()).toEqual([action]);
  });
  it("has the ways home: by family, and all of it", async () => {
    const page = onDemo(<NowRibbon />);
    for (const item of ["Stop movement", /^Release everything/]) {
      await page.user.click(screen.getByRole("button", { name: /Ways home/ }));
      await page.user.click(await screen.findByRole("menuitem", { name: item }));
    }
    expect(page.actions()).toEqual([
      { do: "stop-all", family: "position" },
      { do: "release-all", seconds: 2 },
    ]);
  });
  it("opens what a chip shows in its view", async () => {
    const page = onDemo(<NowRibbon />);
    const [first] = server.state.running;
    await page.user.click(await screen.findByRole("button", { name: new RegExp(`^${first!.name}`) }));
    expect(useDesk.getState()).toMatchObject({
      view: "effects",
      effect: { id: first!.effect_id, key: first!.key },
    });
  });
  it("changes depth and speed live, says so, and writes them back where they came from", async () => {
    const [first] = server.state.running;
    const page = onDemo(<NowRibbon />, { running: [{ ...first!, key: "control:7", depth: 0.5 }] });
    expect(screen.getByText(/live: depth 50 %/)).toBeVisible();
    await page.user.click(screen.getByRole("button", { name: `Depth and speed of ${first!.name}` }));
    const sheet = within(await screen.findByRole("dialog"));
    const depth = sheet.getByRole("slider", { name: "Depth" });
    depth.focus();
    await page.user.keyboard("{ArrowLeft}");
    expect(page.actions()).toEqual([{ do: "adjust", key: "control:7", depth: 0.49 }]);
    expect(sheet.queryByRole("button", { name: "the cue" })).toBeNull();
    server.gives("POST /api/running/write-back", { done: "Written" });
    await page.user.click(sheet.getByRole("button", { name: "the control" }));
    expect(server.edits).toMatchObject([{ body: { key: "control:7", into: "control" } }]);
    expect(await sheet.findByText(/^As .* has it\.$/)).toBeVisible();
  });
  it("gives back one by one or all what hands took from a song", async () => {
    const hands = ["control:3", "pad:1:2"].map((subject, n) => ({ subject, name: `Thing ${n}` }));
    const song = { timeline: 2, name: "Saltworks", leaving: false, speed: 1, position: 60, hands };
    const page = onDemo(<NowRibbon />, { ...QUIET, songs: [song] as never });
    for (const item of ["Thing 1", "All back (2)"]) {
      await page.user.click(screen.getByRole("button", { name: /Give back/ }));
      await page.user.click(await screen.findByRole("menuitem", { name: item }));
    }
    expect(page.actions()).toEqual([
      { do: "give-back", subject: "pad:1:2" },
      { do: "give-back", subject: null },
    ]);
  });
});
