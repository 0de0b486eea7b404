import { act, screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { desk, useDesk } from "../state";
import { onDemo } from "../testing/page";
import { Fault, server } from "../testing/server";
import { Toasts } from "../ui/Toasts";
import { GoOnNotice } from "./GoOnNotice";
import { HeldNotice } from "./HeldNotice";
import { LostNotice } from "./LostNotice";
import { MasterTools } from "./MasterTools";
import { TopBar } from "./TopBar";

describe("the bar", () => {
  it("has the eight views in the order of the work, and opens them", async () => {
    const page = onDemo(<TopBar />);
    const tabs = await screen.findAllByRole("tab");
    expect(tabs.map((one) => one.textContent)).toEqual(
      ["Rig", "Look", "Effects", "Pixels", "Cues", "Busk", "Timeline", "Output"],
    ); // prettier-ignore
    await page.user.click(tabs[5]!);
    expect(useDesk.getState().view).toBe("busk");
    await page.user.click(screen.getByRole("button", { name: /^Shows: Salt Light/ }));
    expect(useDesk.getState().shows).toBe(true);
  });
  it("undoes and does again what the server says there is", async () => {
    server.gives("GET /api/show", {
      ...(server.recorded("/api/show") as object),
      undo: "Change a cue",
      redo: null,
    });
    server.gives("POST /api/undo", { done: "Change a cue" });
    const page = onDemo(
      <>
        <TopBar />
        <Toasts />
      </>,
    );
    const undo = await screen.findByRole("button", { name: "Undo" });
    await waitFor(() => expect(undo).toBeEnabled());
    expect(screen.getByRole("button", { name: "Redo" })).toBeDisabled();
    await page.user.click(undo);
    expect(await screen.findByText("Undone: Change a cue")).toBeVisible();
    server.gives("POST /api/undo", new Fault("Somebody else uses Rose by now."));
    await page.user.click(undo);
    expect(await screen.findByText("Somebody else uses Rose by now.")).toBeVisible();
  });
  it("taps and types a tempo, which a song that plays has until it is taken", async () => {
    const page = onDemo(<TopBar />, { songs: [] });
    await page.user.click(screen.getByRole("button", { name: "Tap" }));
    const bpm = screen.getByRole("textbox", { name: "Beats per minute" });
    await page.user.clear(bpm);
    await page.user.type(bpm, "140{Enter}");
    expect(page.actions()).toEqual([
      { do: "tap", tempo: "Movement" },
      { do: "bpm", tempo: "Movement", value: 140 },
    ]);
    page.tell({ songs: [{ timeline: 1, leaving: false, speed: 1, hands: [] }] as never });
    await page.user.click(screen.getByRole("button", { name: "Take Movement from the song" }));
    expect(page.actions().at(-1)).toEqual({ do: "take-tempo", tempo: "Movement" });
  });
});

describe("the masters", () => {
  it("set grand master and blackout, and follow what others set", async () => {
    const page = onDemo(<MasterTools />);
    await page.user.click(screen.getByRole("button", { name: "Blackout" }));
    const grand = screen.getByRole("slider", { name: "Grand master" });
    grand.focus();
    await page.user.keyboard("{ArrowLeft}");
    expect(page.actions()).toEqual([
      { do: "blackout", on: true },
      { do: "grand", value: 0.99 },
    ]);
    page.tell({ blackout: true, grand: 0.4 });
    expect(screen.getByRole("button", { name: "Blackout" })).toHaveAttribute("aria-pressed", "true");
    await waitFor(() => expect(grand).toHaveValue("40"));
  });
  it("cannot be moved where nothing hears them, and say so", () => {
    const page = onDemo(<MasterTools />);
    page.say({ type: "engine", connected: false, message: "" });
    expect(screen.getByRole("button", { name: "Output: Not connected" })).toBeVisible();
    expect(screen.getByRole("button", { name: "Blackout" })).toBeDisabled();
  });
  it("lead to where a fault can be mended", async () => {
    const page = onDemo(<MasterTools />, { routes: [] });
    await page.user.click(screen.getByRole("button", { name: "Output: No output" }));
    expect(useDesk.getState()).toMatchObject({ view: "output", outputTab: "routes" });
  });
});

describe("what is said over every page", () => {
  const health = (...texts: string[]) => ({
    health: { ...server.state.health, troubles: texts.map((text, n) => ({ who: `Part ${n}`, text })) },
  });
  it("is what is wrong, one at first, and no more once it was read", async () => {
    const page = onDemo(<LostNotice />, health("It stands.", "It burns."));
    expect(screen.getByRole("alert")).toHaveTextContent("Part 0: It stands.");
    await page.user.click(screen.getByRole("button", { name: "1 more" }));
    expect(screen.getAllByRole("listitem").map((one) => one.textContent)).toEqual([
      "Part 0: It stands.",
      "Part 1: It burns.",
    ]);
    await page.user.click(screen.getByRole("button", { name: "Read" }));
    expect(screen.queryByRole("alert")).toBeNull();
    page.tell(health("It stands.", "It smokes."));
    expect(screen.getByRole("alert")).toHaveTextContent("It smokes.");
  });
  it("is that the page does not hear from Zarabanda, or that the engine is away", () => {
    const page = onDemo(<LostNotice />, health());
    expect(screen.queryByRole("alert")).toBeNull();
    page.say({ type: "engine", connected: false, message: "" });
    expect(screen.getByRole("alert")).toHaveTextContent("The engine is being started again");
    page.say({ type: "engine", connected: false, message: "It died 3 times." });
    expect(screen.getByRole("alert")).toHaveTextContent("It died 3 times.");
    page.lose();
    expect(screen.getByRole("alert")).toHaveTextContent("Not connected to Zarabanda. The lights go on");
  });
  it("is that slots are held by hand, with one press that lets go of all", async () => {
    const held = [
      { universe: 1, slot: 5, value: 255 },
      { universe: 2, slot: 9, value: 7 },
    ];
    const page = onDemo(<HeldNotice />, { held });
    expect(screen.getByRole("alert")).toHaveTextContent(
      "Slot 5 of universe 1 is held at 255 and 1 more by hand",
    );
    await page.user.click(screen.getByRole("button", { name: "Let go" }));
    expect(page.actions()).toEqual(held.map(({ universe, slot }) => ({ do: "hold-slot", universe, slot })));
    page.tell({ held: [] });
    expect(screen.queryByRole("alert")).toBeNull();
  });
  it.each([
    [1, "Go on where it was", [{ do: "go-on", on: true }]],
    [1, "Leave it standing", [{ do: "go-on", on: false }]],
    [
      0,
      "Release everything",
      [
        { do: "release-all", seconds: 2 },
        { do: "go-on", on: false },
      ],
    ],
  ] as const)("is that all was cut off: %#", async (standing, button, actions) => {
    const page = onDemo(<GoOnNotice />, {
      cut_off: { at: 1_796_000_000, cues: ["Saltworks, cue 4"], standing } as never,
    });
    expect(screen.getByRole("alert")).toHaveTextContent("in Saltworks, cue 4. The light is as it was then");
    await page.user.click(screen.getByRole("button", { name: button }));
    expect(page.actions()).toEqual(actions);
  });
});

describe("the size of the stage", () => {
  it("is remembered by each view, and filling the page is undone", () => {
    onDemo(<TopBar />);
    const size = () => useDesk.getState().stages[useDesk.getState().view];
    const does = (...steps: (() => void)[]) => act(() => steps.forEach((step) => step()));
    does(
      () => desk.size("tall"),
      () => desk.show("busk"),
      () => desk.size("hidden"),
    );
    expect(size()).toBe("hidden");
    does(() => desk.size("full"));
    expect(size()).toBe("full");
    does(() => desk.size("full"));
    expect(size()).toBe("hidden");
    does(() => desk.show("effects"));
    expect(size()).toBe("tall");
  });
});
