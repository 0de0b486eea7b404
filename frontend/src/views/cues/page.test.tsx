import { act, screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { desk, useDesk } from "../../state";
import { isAsked, onDemo } from "../../testing/page";
import { server } from "../../testing/server";
import { CuesView } from "./CuesView";

type Row = { id: number; number: number; name: string };
const rows = () => server.recorded<{ rows: Row[] }>("/api/cue-lists/1").rows;
const line = (name: string) => screen.getByRole("listitem", { name: new RegExp(`^Cue [0-9.]+ ${name}$`) });
const idOf = (name: string) => rows().find((one) => one.name === name)!.id;
/** The view on the first list, which is not on stage. */
async function cues() {
  const page = onDemo(<CuesView />);
  await screen.findAllByRole("listitem", { name: /^Cue/ });
  const told = server.state.lists!.find((one) => one.id === 1)!;
  return {
    ...page,
    /** The engine tells where the list is. */
    tellList: (more: Partial<typeof told>) => page.tell({ lists: [{ ...told, ...more }] }),
    choose: async (name: string, item: string) => {
      act(() => desk.openList(1, idOf(name)));
      await page.user.click(within(line(name)).getByRole("button", { name: /: more$/ }));
      await page.user.click(await screen.findByRole("menuitem", { name: item }));
    },
  };
}

describe("a cue list", () => {
  it("has its cues in their order, and other lists beside it", async () => {
    const { user } = await cues();
    const told = screen
      .getAllByRole("listitem", { name: /^Cue/ })
      .map((one) => one.getAttribute("aria-label"));
    expect(told).toEqual(rows().map((row) => `Cue ${row.number} ${row.name}`));
    await user.click(screen.getByRole("button", { name: /^Saltworks/ }));
    expect(await screen.findByRole("heading", { name: "Saltworks" })).toBeVisible();
  });
  it("goes from its beginning; what needs a cue waits for one", async () => {
    const { user, actions, tellList } = await cues();
    tellList({ cue: null, next: idOf("All else out") });
    for (const name of ["Back", "Pause", "Release"])
      expect(screen.getByRole("button", { name })).toBeDisabled();
    const go = screen.getByRole("button", { name: /^Go/ });
    expect(go).toHaveTextContent("Go1 All else out");
    await user.click(go);
    expect(actions()).toEqual([{ do: "go", list: 1 }]);
  });
  it("says where it is, and goes back, pauses, goes on and is released", async () => {
    const { user, actions, tellList } = await cues();
    tellList({ cue: idOf("Figure"), next: idOf("Hit 1") });
    expect(line("Figure")).toHaveAttribute("aria-current", "true");
    expect(line("Hit 1")).toHaveAttribute("data-next");
    expect(line("Turn")).not.toHaveAttribute("aria-current");
    for (const name of ["Back", "Pause", "Release"]) await user.click(screen.getByRole("button", { name }));
    tellList({ cue: idOf("Figure"), next: idOf("Hit 1"), paused_at: 1 });
    expect(screen.getByRole("button", { name: /^Go/ })).toHaveTextContent("goes on");
    await user.click(screen.getByRole("button", { name: "Pause" }));
    expect(actions()).toEqual([
      { do: "back", list: 1 },
      { do: "pause", list: 1 },
      { do: "release", list: 1, seconds: 2 },
      { do: "resume", list: 1 },
    ]);
    tellList({ cue: idOf("Dark"), next: null });
    expect(screen.getByRole("button", { name: /^Go/ })).toHaveTextContent("at the end");
    expect(screen.getByRole("button", { name: /^Go/ })).toBeDisabled();
  });
  it("is gone to at any cue, and has another chosen as next and not after all", async () => {
    const { actions, tellList, choose, user } = await cues();
    await user.dblClick(within(line("Turn")).getByText("Turn"));
    await choose("Verse 2", "Go to this cue");
    await choose("Verse 2", "Choose as next");
    tellList({ cue: idOf("Turn"), next: idOf("Verse 2"), chosen: true });
    await choose("Verse 2", "Not next after all");
    expect(actions()).toEqual([
      { do: "go-to", list: 1, cue: idOf("Turn") },
      { do: "go-to", list: 1, cue: idOf("Verse 2") },
      { do: "choose-next", list: 1, cue: idOf("Verse 2") },
      { do: "choose-next", list: 1, cue: null },
    ]);
  });
  it.each([
    ["Duplicate behind it", "POST", /paste$/],
    ["Renumber the list 1, 2, 3 …", "POST", /renumber$/],
    ["Delete", "DELETE", /^\/api\/cues\/\d+$/],
  ])("%s", async (item, method, path) => {
    server.gives(`${method} /api/cue*`, { done: "Done", cues: [], cue_id: 1 });
    const { choose } = await cues();
    await choose("Figure", item);
    await waitFor(() => expect(server.edits).toHaveLength(1));
    expect(server.edits[0]).toMatchObject({ method, path: expect.stringMatching(path) as string });
  });
});

describe("recording", () => {
  async function sheet() {
    server.gives("POST /api/cue-lists/1/cues", { done: "Recorded", cue_id: idOf("Turn") });
    server.gives(`POST /api/cues/${idOf("Figure")}/record`, { done: "Recorded" });
    const { user } = await cues();
    act(() => desk.openList(1, idOf("Figure")));
    act(() => desk.select(["101", "102"]));
    await user.click(screen.getByRole("button", { name: "Record …" }));
    return { user, inside: within(await screen.findByRole("dialog", { name: "Record into Tide Clock" })) };
  }
  it("makes a cue behind the open one, of what is ticked, with a fade; it is open then", async () => {
    const { user, inside } = await sheet();
    await user.type(inside.getByRole("textbox", { name: "Name" }), "Again");
    await user.click(inside.getByRole("checkbox", { name: "Position" }));
    await user.click(inside.getByRole("checkbox", { name: "Only the 2 chosen lights" }));
    const fade = inside.getByRole("textbox", { name: /Fades in/ });
    await user.clear(fade);
    await user.type(fade, "4{Tab}");
    await user.click(inside.getByRole("button", { name: "Record" }));
    await isAsked("cue-lists/1/cues", {
      name: "Again",
      after: idOf("Figure"),
      families: ["intensity", "colour", "beam"],
      heads: ["101", "102"],
      effects: true,
      everything_else_out: false,
    });
    const [asked] = server.bodies("cue-lists/1/cues") as { times: { intensity: object } }[];
    expect(asked!.times.intensity).toMatchObject({ up: 4, down: 4 });
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(useDesk.getState().cue).toBe(idOf("Turn"));
  });
  it.each([
    [/into 6 Figure/, "merge"],
    [/in place of all/, "replace"],
    [/out of 6 Figure/, "take away"],
  ])("goes into a cue that is there: %s", async (option, how) => {
    const { user, inside } = await sheet();
    await user.click(inside.getByRole("button", { name: /Where/ }));
    await user.click(await screen.findByRole("option", { name: option }));
    expect(inside.queryByRole("textbox", { name: "Name" })).toBeNull();
    await user.click(inside.getByRole("button", { name: "Record" }));
    await waitFor(() => expect(server.edits.at(-1)!.body).toMatchObject({ how, heads: null }));
  });
});
