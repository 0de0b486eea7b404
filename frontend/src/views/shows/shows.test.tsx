import { screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { onDemo } from "../../testing/page";
import { Fault, server } from "../../testing/server";
import { Toasts } from "../../ui/Toasts";
import { ShowsPage } from "./ShowsPage";

const club = { id: "0000c1ab", name: "Club", opened: 0, deleted: 0, size: 1, fixtures: 1, picture: 0 };
const page = () =>
  onDemo(
    <>
      <ShowsPage />
      <Toasts />
    </>,
  );
function twoShows(more: object = {}) {
  const told = server.recorded("/api/shows");
  server.gives("GET /api/shows", { ...told, shows: [club, ...told.shows], ...more });
}
const card = async (name: string) => within(await screen.findByRole("listitem", { name }));

describe("the page of shows", () => {
  it("has the open one first, and says how each is", async () => {
    twoShows();
    page();
    const cards = await screen.findAllByRole("listitem");
    expect(cards.map((one) => one.getAttribute("aria-label"))).toEqual(["Salt Light", "Club"]);
    expect(cards[0]).toHaveTextContent("open now · 81 fixtures");
    expect(cards[1]).toHaveTextContent("never open yet · 1 fixture");
    expect(within(cards[0]!).queryByRole("button", { name: "Open" })).toBeNull();
  });
  it("asks before what is on stage ends, and opens at once where nothing is", async () => {
    twoShows();
    server.gives("POST /api/shows/0000c1ab/open", { done: "Opened Club" });
    const { user, unmount } = page();
    await user.click((await card("Club")).getByRole("button", { name: "Open" }));
    const asked = await screen.findByRole("dialog");
    expect(asked).toHaveTextContent("5 effects and 2 cue lists of Salt Light are on stage");
    await user.click(within(asked).getByRole("button", { name: "Stay with Salt Light" }));
    expect(server.edits).toEqual([]);
    await user.click((await card("Club")).getByRole("button", { name: "Open" }));
    await user.click(await screen.findByRole("button", { name: "Open Club" }));
    await waitFor(() => expect(server.edits.map((one) => one.path)).toEqual(["/api/shows/0000c1ab/open"]));
    unmount();
    twoShows({ on_stage: "" });
    const quiet = page();
    await quiet.user.click((await card("Club")).getByRole("button", { name: "Open" }));
    await waitFor(() => expect(server.edits).toHaveLength(2));
  });
  it("makes a show by name and beginning; a refusal stays where it was said", async () => {
    server.gives("POST /api/shows", { id: "00000001", done: "Made Cellar" });
    const { user } = page();
    await user.click(await screen.findByRole("button", { name: "New show" }));
    const sheet = within(await screen.findByRole("dialog"));
    expect(sheet.getByRole("button", { name: "Make it" })).toBeDisabled();
    await user.type(sheet.getByRole("textbox", { name: "Name" }), "  Cellar ");
    await user.click(sheet.getByRole("button", { name: /It begins/ }));
    await user.click(await screen.findByRole("option", { name: /small club/ }));
    server.gives("POST /api/shows", new Fault("Make room on the disk."));
    await user.click(sheet.getByRole("button", { name: "Make it" }));
    expect(await screen.findByText("Make room on the disk.")).toBeVisible();
    expect(screen.getByRole("dialog")).toBeVisible();
    server.gives("POST /api/shows", { id: "00000001", done: "Made Cellar" });
    await user.click(sheet.getByRole("button", { name: "Make it" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(server.edits.map((one) => one.body)).toEqual(Array(2).fill({ name: "Cellar", begin: "club" }));
  });
  it.each([
    ["Copy…", "Copy Club", "Club, copy", "POST /api/shows/0000c1ab/copy"],
    ["Rename…", "Rename Club", "Club", "PUT /api/shows/0000c1ab"],
  ])("gives names: %s", async (item, title, begins, asked) => {
    twoShows();
    server.gives(asked, { id: "00000002", done: "Done" });
    const { user } = page();
    await user.click((await card("Club")).getByRole("button", { name: "Club: more" }));
    await user.click(await screen.findByRole("menuitem", { name: item }));
    const sheet = within(await screen.findByRole("dialog", { name: title }));
    expect(sheet.getByRole("textbox", { name: "Name" })).toHaveValue(begins);
    await user.type(sheet.getByRole("textbox", { name: "Name" }), " II{Enter}");
    await waitFor(() => expect(server.edits.map((one) => `${one.method} ${one.path}`)).toEqual([asked]));
    expect(server.edits[0]!.body).toEqual({ name: `${begins} II` });
  });
  it("does not delete the open show, and takes back what is in the bin", async () => {
    twoShows({ bin: [{ ...club, id: "0000dead", name: "Old", deleted: Date.now() / 1000 - 86_400 }] });
    server.gives("DELETE /api/shows/0000c1ab", { done: "Club is in the bin" });
    server.gives("POST /api/shows/0000dead/take-back", { done: "Took Old back" });
    server.gives("POST /api/shows/bin/empty", { done: "The bin is empty" });
    const { user } = page();
    await user.click((await card("Salt Light")).getByRole("button", { name: "Salt Light: more" }));
    expect(await screen.findByRole("menuitem", { name: /^Delete/ })).toHaveAttribute("aria-disabled", "true");
    await user.keyboard("{Escape}");
    await user.click((await card("Club")).getByRole("button", { name: "Club: more" }));
    await user.click(await screen.findByRole("menuitem", { name: "Delete" }));
    const bin = within(screen.getByRole("region", { name: "Bin" }));
    expect(bin.getByText("29 days left")).toBeVisible();
    await user.click(bin.getByRole("button", { name: "Take Old back" }));
    await user.click(bin.getByRole("button", { name: "Delete all of it for good" }));
    await waitFor(() => expect(server.edits.map((one) => one.path)).toEqual(
      ["/api/shows/0000c1ab", "/api/shows/0000dead/take-back", "/api/shows/bin/empty"],
    )); // prettier-ignore
  });
  it("shows a copy beside what is there now before it is taken back", async () => {
    const file = "1796000000-clock.zarabanda";
    server.gives("GET /api/shows/copies", {
      copies: [{ file, at: 1_796_000_000, why: "while it was edited", size: 9 }],
    });
    server.gives(`GET /api/shows/copies/${file}`, {
      name: "Salt Light",
      counts: [{ what: "palettes", then: 40, now: 41 }, { what: "cues", then: 7, now: 7 }],
      missing: 2,
    }); // prettier-ignore
    server.gives(`POST /api/shows/copies/${file}/take-back`, { done: "Taken back" });
    const { user } = page();
    await user.click(await screen.findByRole("button", { name: /^Look at the copy of/ }));
    const sheet = within(await screen.findByRole("dialog"));
    const rows = sheet.getAllByRole("row").slice(1);
    expect(rows.map((row) => [row.textContent, row.hasAttribute("data-differs")])).toEqual(
      [["palettes4041", true], ["cues77", false]],
    ); // prettier-ignore
    expect(sheet.getByText(/^2 of its sounds, pictures and films/)).toBeVisible();
    await user.click(sheet.getByRole("button", { name: "Take it back" }));
    await waitFor(() =>
      expect(server.edits.map((one) => one.path)).toContain(`/api/shows/copies/${file}/take-back`),
    );
  });
  it("tells what parts of another show would bring before they come", async () => {
    twoShows();
    server.gives("GET /api/shows/0000c1ab/parts", {
      parts: [
        { kind: "palette", what: "palettes", id: 3, name: "Lagoon" },
        { kind: "palette", what: "palettes", id: 4, name: "Rose" },
        { kind: "effect", what: "effects", id: 1, name: "Tide fold" },
      ],
    });
    const told = {
      coming: [{ kind: "palette", was: "Lagoon", name: "Lagoon 2", what: "palettes" }],
      matched: [],
      groups: [],
    };
    server.gives("POST /api/shows/0000c1ab/parts", { ...told, fixtures: [], done: "shown" });
    const { user } = page();
    await user.click((await card("Club")).getByRole("button", { name: "Club: more" }));
    await user.click(await screen.findByRole("menuitem", { name: "Bring parts of it in…" }));
    const sheet = within(await screen.findByRole("dialog"));
    await user.type(await sheet.findByRole("textbox", { name: "Search" }), "lag");
    await user.click(within(await sheet.findByRole("region", { name: "palettes" })).getByText("Lagoon"));
    expect(sheet.queryByText("Rose")).toBeNull();
    await user.click(sheet.getByRole("button", { name: "See what 1 part would bring" }));
    expect(await sheet.findByText(/Lagoon 2/)).toBeVisible();
    await user.click(sheet.getByRole("button", { name: "Bring them in" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(server.edits.map((one) => (one.body as { preview: boolean }).preview)).toEqual([true, false]);
  });
});
