import { act, screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { desk, useDesk } from "../../../state";
import { onDemo } from "../../../testing/page";
import { server } from "../../../testing/server";
import { FaderBank } from "./FaderBank";

/** The first page of faders and buttons, with some controls changed. */
async function bank(change: Record<string, object> = {}) {
  const told = server.recorded("/api/pages");
  for (const one of told.pages[0].controls) Object.assign(one, change[one.name as string]);
  server.gives("GET /api/pages", told);
  for (const method of ["POST", "PUT", "DELETE"]) server.gives(`${method} /api/pages/*`, { done: "Done" });
  const page = onDemo(<FaderBank start={null} />, { levels: {}, looks: [] } as never);
  await screen.findByRole("region", { name: "Dance floor" });
  return page;
}
const button = (name: string) => screen.getByRole("button", { name: new RegExp(`^${name}`) });
const edits = () => server.edits.map(({ method, path, body }) => ({ method, path, body }));

describe("a page of faders and buttons", () => {
  it.each([
    ["a button that stays", "Ladders: moons", "control:10", [true]],
    ["a button that acts while it is held", "Crowd: heartbeat", "control:12", [true, false]],
    ["one light alone while it is held", "Front alone", "control:27", [true, false]],
  ])("acts as it says: %s", async (_, name, control, downs) => {
    const { user, actions } = await bank();
    await user.click(button(name));
    expect(actions()).toEqual(downs.map((down) => ({ do: "press", control, down })));
  });
  it("shows what is on, as the engine tells it", async () => {
    const page = await bank();
    expect(button("Ladders: moons")).toHaveAttribute("aria-pressed", "false");
    page.tell({ levels: { "control:10": 1 } });
    expect(button("Ladders: moons")).toHaveAttribute("aria-pressed", "true");
  });
  it("follows faders that another hand moves", async () => {
    const page = await bank();
    const fader = screen.getByRole("slider", { name: "Mid washes, level of the group" });
    page.tell({ levels: { "control:16": 0.3 } });
    await waitFor(() => expect(fader).toHaveValue("30"));
    act(() => fader.focus());
    await page.user.keyboard("{End}");
    expect(page.actions().at(-1)).toMatchObject({ do: "level", control: "control:16", value: 1 });
  });
  it("says that what a button had is gone", async () => {
    await bank({ "Walk-in": { gone: "its look is gone" } });
    expect(button("Walk-in")).toHaveTextContent("its look is gone");
  });
  it("goes to another page by its button and by its number", async () => {
    const { user } = await bank();
    await user.click(screen.getByRole("radio", { name: /^Songs/ }));
    expect(await screen.findByRole("region", { name: "Songs" })).toBeVisible();
    await user.keyboard("1");
    expect(await screen.findByRole("region", { name: "Dance floor" })).toBeVisible();
  });
});

describe("a page that is arranged", () => {
  it("has room for another fader, named after what it moves", async () => {
    const { user } = await bank();
    await user.click(screen.getByRole("button", { name: "Arrange" }));
    await user.click(screen.getByRole("button", { name: "Fader 14, empty" }));
    const sheet = within(await screen.findByRole("dialog"));
    expect(sheet.getByRole("button", { name: "Put it there" })).toBeDisabled();
    await user.click(sheet.getByRole("button", { name: /The fader moves$/ }));
    await user.click(await screen.findByRole("option", { name: /cue list/ }));
    await user.click(sheet.getByRole("button", { name: /Cue list$/ }));
    await user.click(await screen.findByRole("option", { name: "Saltworks" }));
    await user.click(sheet.getByRole("button", { name: "Put it there" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(edits()[0]!.body).toMatchObject({
      place: 14,
      mode: "fader",
      name: "Saltworks",
      drives: { kind: "list" },
    });
  });
  it("changes, moves and takes off what is there", async () => {
    const { user } = await bank();
    await user.click(screen.getByRole("button", { name: "Arrange" }));
    const open = async () => {
      await user.click(screen.getByRole("button", { name: "Button 5, Beams: sparks" }));
      return within(await screen.findByRole("dialog", { name: "Button 5 of Dance floor" }));
    };
    let sheet = await open();
    const name = sheet.getByRole("textbox", { name: "Name" });
    await user.clear(name);
    await user.type(name, "Sparks");
    await user.click(sheet.getByRole("button", { name: /Place$/ }));
    await user.click(await screen.findByRole("option", { name: "Button 7, free" }));
    await user.click(sheet.getByRole("button", { name: "Keep" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    sheet = await open();
    await user.click(sheet.getByRole("button", { name: "Take it off" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(edits()).toEqual([
      {
        method: "PUT",
        path: "/api/pages/controls/11",
        body: expect.objectContaining({ name: "Sparks", place: 7, mode: "flash" }) as object,
      },
      { method: "DELETE", path: "/api/pages/controls/11", body: "" },
    ]);
  });
  it("leads to the effect of a fader", async () => {
    const { user } = await bank();
    await user.click(screen.getByRole("button", { name: "Arrange" }));
    await user.click(screen.getByRole("button", { name: "Fader 1, Spots: tide fold" }));
    await user.click(await screen.findByRole("button", { name: "Edit the effect" }));
    expect(useDesk.getState()).toMatchObject({ view: "effects", effect: { key: "control:1" } });
    act(() => desk.show("busk"));
  });
});
