import { act, screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { queries } from "../../api/queries";
import { desk, useDesk } from "../../state";
import { onDemo, WEAVE, isAsked } from "../../testing/page";
import { Fault, server } from "../../testing/server";
import { Toasts } from "../../ui/Toasts";
import { EffectsView } from "./EffectsView";

const TIDE = 34;
const effect = (more: object = {}) => ({ ...server.recorded(`/api/effects/${TIDE}`), ...more });

/** The view; with an effect open where one is asked for. */
function view(open: { key?: string | null; more?: object; notices?: object[] } | null = null) {
  const shown = effect(open?.more);
  const weave = { ...WEAVE, attributes: ["look", "intensity"], notices: open?.notices ?? [] };
  server.gives(`GET /api/effects/${TIDE}`, shown);
  const page = onDemo(
    <>
      <EffectsView />
      <Toasts />
    </>,
  );
  server.gives(`POST /api/effects/${TIDE}/weave`, weave);
  server.gives(`POST /api/effects/${TIDE}/change`, { effect: shown, weave });
  if (open) act(() => desk.open(TIDE, open.key ?? null));
  return page;
}
const changed = (body: object) => isAsked(`effects/${TIDE}/change`, { preview: false, ...body });
const effects = () => within(screen.getByRole("listbox", { name: "Library" })).queryAllByRole("option");

describe("the library", () => {
  it("is searched by words of the sentence and by family", async () => {
    const { user } = view();
    await waitFor(() => expect(effects()).toHaveLength(35));
    const search = screen.getByRole("textbox", { name: "Search the library" });
    await user.type(search, "relay there and back");
    expect(effects().map((one) => one.getAttribute("aria-label") ?? one.textContent)).toEqual([
      expect.stringContaining("Lamplighter"),
    ]);
    await user.clear(search);
    await user.type(search, "nothing has this");
    expect(screen.getByText(/^No effect has these words/)).toBeVisible();
    await user.clear(search);
    await user.click(screen.getByRole("button", { name: /\bShow\b/ }));
    await user.click(await screen.findByRole("option", { name: "Beam" }));
    expect(effects()[0]).toHaveTextContent("Frost breath");
  });
  it("takes a file in, and tells what of it could not be read", async () => {
    server.gives("POST /api/effects/import", {
      effects: ["Undertow again"],
      refused: ["Broken: layers.0.ratio must be more than 0"],
      remarks: [],
    });
    const { user } = view();
    const file = new File([JSON.stringify({ effects: [] })], "set.json", { type: "application/json" });
    await user.upload(await screen.findByLabelText("A file of effects"), file);
    const told = await screen.findByRole("dialog", { name: "Not everything could be read" });
    expect(told).toHaveTextContent("layers.0.ratio");
    await user.click(within(told).getByRole("button", { name: "Close" }));
    expect(server.bodies("effects/import")[0]).toEqual({ content: { effects: [] } });
  });
  it("begins an effect on the selection, which is open then", async () => {
    server.gives("POST /api/effects", { effect: effect(), draft_id: 9 });
    const { user } = view();
    act(() => desk.select(["101", "102"]));
    await user.click(await screen.findByRole("button", { name: "New effect" }));
    await user.click(await screen.findByRole("menuitem", { name: "Intensity, one after another" }));
    await isAsked("effects", { attribute: "intensity", spread: "relay", heads: ["101", "102"] });
    await waitFor(() => expect(useDesk.getState().effect).toEqual({ id: TIDE, key: "draft:9" }));
  });
});

describe("an effect", () => {
  it("is changed in its sentence by a choice, a number and an arrow key", async () => {
    const { user } = view({});
    await user.click(await screen.findByRole("button", { name: /^Attribute: Intensity/ }));
    await user.click(await screen.findByRole("option", { name: "Zoom" }));
    await changed({ path: "layers.0.attribute", value: "zoom" });
    const number = screen.getAllByRole("button", { name: /^Low: / })[0]!;
    act(() => number.focus());
    await user.keyboard("12{Enter}");
    await changed({ path: "layers.0.anchor.low", value: 12 });
  });
  it("tells at its place what a number out of range becomes", async () => {
    const { user } = view({});
    await user.click((await screen.findAllByRole("button", { name: /^Low: / }))[0]!);
    const field = await screen.findByRole("textbox", { name: "Low" });
    await user.clear(field);
    await user.type(field, "900");
    expect(screen.getByText("It goes from 0 to 100 %; 900 becomes 100 %.")).toBeVisible();
    await user.keyboard("{Enter}");
    await changed({ path: "layers.0.anchor.low", value: 100 });
  });
  it("says what will look wrong, and its button mends it", async () => {
    const fix = {
      operation: "add-layer",
      path: "",
      value: "intensity",
      words: "Raise intensity to 60 % with it",
    };
    const text = "The lights are dark: nothing of this will be seen.";
    const { user } = view({ notices: [{ kind: "dark", path: "", text, note: false, fix }] }); // prettier-ignore
    expect(await screen.findByText(text)).toBeVisible();
    await user.click(screen.getByRole("button", { name: fix.words }));
    await changed({ operation: "add-layer", value: "intensity" });
  });
  it("takes another layer from a menu of what it can move", async () => {
    const { user } = view({});
    await user.click(await screen.findByRole("button", { name: "Add a layer" }));
    await user.click(await screen.findByRole("menuitem", { name: "Colour, through stops" }));
    await changed({ operation: "add-layer", value: "colour" });
  });
  it("that runs nowhere offers the lights in its place", async () => {
    server.gives("POST /api/draft/effects", { id: 4 });
    const { user } = view({ more: { kept: false } });
    const offer = within(await screen.findByRole("region", { name: "Lights to run it on" }));
    expect(offer.getByText(/made-up row of ten heads/)).toBeVisible();
    await user.click(offer.getByRole("button", { name: "Mid washes" }));
    await isAsked("draft/effects", {
      effect_id: TIDE,
      heads: [...Array(10).keys()].map((n) => String(201 + n)),
    });
    await waitFor(() => expect(useDesk.getState().effect?.key).toBe("draft:4"));
  });
  it("is woven on other heads and by another attribute", async () => {
    const { user } = view({});
    await user.click(await screen.findByRole("button", { name: /Seen on$/ }));
    await user.click(await screen.findByRole("option", { name: "Battens: 72 heads" }));
    await waitFor(() => {
      const asked = server.bodies(`effects/${TIDE}/weave`).at(-1) as { heads: string[] };
      expect(asked.heads).toHaveLength(72);
    });
    await user.click(screen.getByRole("button", { name: /^.*Woven by$/ }));
    await user.click(await screen.findByRole("option", { name: "By intensity" }));
    await isAsked(`effects/${TIDE}/weave`, { attribute: "intensity" });
  });
  it("that others use too is changed for all, or gets its own copy", async () => {
    server.gives(`POST /api/effects/${TIDE}/own-copy`, { id: 77, name: "Bright tide 2" });
    const { user } = view({ key: "control:4", more: { uses: ["fader 4", "cue 3", "the draft"] } });
    expect(await screen.findByText(/A change changes all 3/)).toBeVisible();
    await user.click(screen.getByRole("button", { name: "Make its own copy" }));
    await isAsked(`effects/${TIDE}/own-copy`, { key: "control:4" });
    await waitFor(() => expect(useDesk.getState().effect).toEqual({ id: 77, key: "control:4" }));
  });
  it("deleted elsewhere is not lost", async () => {
    const { user } = view({});
    await screen.findAllByRole("button", { name: /^Low: / });
    server.gives(`GET /api/effects/${TIDE}`, new Fault("There is no effect 34.", 404));
    server.gives("POST /api/effects", { effect: effect({ id: 78 }) });
    await act(() => queries.invalidateQueries());
    expect(await screen.findByRole("alert")).toHaveTextContent("It was deleted while it was open here");
    await user.click(screen.getByRole("button", { name: "Keep it as a new effect" }));
    await isAsked("effects", { document: effect().document });
    await waitFor(() => expect(useDesk.getState().effect?.id).toBe(78));
  });
  it("is put on a fader: what of it, what the fader sets, and a name that is free", async () => {
    const { user } = view({ key: "draft:1", more: { families: ["intensity", "position"] } });
    await user.click(await screen.findByRole("button", { name: "Put it on" }));
    const sheet = within(await screen.findByRole("dialog"));
    await user.click(sheet.getByRole("button", { name: /On$/ }));
    await user.click(await screen.findByRole("option", { name: "Rear spots, now and later" }));
    await user.click(sheet.getByRole("button", { name: /The fader sets$/ }));
    await user.click(await screen.findByRole("option", { name: "its speed" }));
    await user.click(sheet.getByRole("checkbox", { name: "intensity" }));
    const name = sheet.getByRole("textbox", { name: "Name on the page" });
    await user.clear(name);
    await user.type(name, "Slowly");
    server.gives("POST /api/pages/*", new Fault("There is a fader named Slowly."));
    await user.click(sheet.getByRole("button", { name: "Put it there" }));
    expect(await sheet.findByText("There is a fader named Slowly.")).toBeVisible();
    server.gives("POST /api/pages/*", {});
    await user.click(sheet.getByRole("button", { name: "Put it there" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(server.edits.at(-1)!.body).toMatchObject({
      mode: "fader",
      job: "speed",
      name: "Slowly",
      drives: { kind: "effect", number: TIDE, heads: [], families: ["position"] },
    });
  });
  it("is kept under a name that is free", async () => {
    server.gives(
      `POST /api/effects/${TIDE}/keep`,
      new Fault("There is an effect named “Tide fold” already."),
    );
    const { user } = view({ more: { kept: false } });
    await user.click(await screen.findByRole("button", { name: "Keep" }));
    const name = await screen.findByRole("textbox", { name: "Name" });
    await user.clear(name);
    await user.type(name, "Tide fold{Enter}");
    expect(await screen.findByText("There is an effect named “Tide fold” already.")).toBeVisible();
  });
});
