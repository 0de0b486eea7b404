import { act, screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { BlindMark } from "../../stage/BlindMark";
import { WhyPanel } from "../../frame/WhyPanel";
import { desk, useDesk } from "../../state";
import { isAsked, onDemo } from "../../testing/page";
import { Fault, server } from "../../testing/server";
import { Toasts } from "../../ui/Toasts";
import { LookView } from "./LookView";

const FIVE = ["101", "102", "103", "104", "105"];
type Value = {
  attribute: string;
  value: number;
  least: number;
  most: number;
  mixed: boolean;
  source: string;
};

/** The view with five spots selected; what is set goes to the draft. */
async function look(more: object = {}) {
  for (const path of ["change", "take", "take-back"])
    server.gives(`POST /api/draft/${path}`, { limited: "" });
  server.gives("POST /api/colour/look-away", {});
  const page = onDemo(
    <>
      <LookView />
      <BlindMark />
      <WhyPanel />
      <Toasts />
    </>,
    more,
  );
  act(() => desk.select(FIVE));
  await screen.findByRole("group", { name: "Intensity" });
  return page;
}
const group = (name: string) => within(screen.getByRole("group", { name }));
function withBase(change: (values: Value[]) => void) {
  const told = server.recorded("POST /api/draft/base");
  change(told.values);
  server.gives("POST /api/draft/base", told);
}
function withDraft(more: object) {
  server.gives("GET /api/draft", { ...(server.recorded("/api/draft") as object), ...more });
}
const listed = [
  { label: "Gobo", family: "beam", attributes: ["gobo"], heads: FIVE, source: "draft", words: "rings", values: [3, 3, 3, 3, 3] },
  { label: "Zoom", family: "beam", attributes: ["zoom"], heads: ["101"], source: "fan", words: "10 °", values: [10] },
]; // prettier-ignore

describe("values of the selection", () => {
  it("are asked for by selecting lights", async () => {
    onDemo(<LookView />);
    expect(await screen.findByText(/^Select lights on the stage, or a group above/)).toBeVisible();
    expect(screen.queryByRole("group", { name: "Intensity" })).toBeNull();
  });
  it.each([
    ["a value", "60{Enter}", { text: "60" }],
    ["a difference", "-10 %{Enter}", { text: "-10 %" }],
    ["one step", "{ArrowUp}", { by: 1 }],
    ["ten steps", "{Shift>}{ArrowUp}{/Shift}", { by: 10 }],
    ["a tenth of a step", "{Alt>}{ArrowDown}{/Alt}", { by: -0.1 }],
  ])("are typed: %s", async (_, keys, asked) => {
    const { user } = await look();
    const field = group("Intensity").getByRole("textbox");
    await user.click(field);
    await user.clear(field);
    await user.type(field, keys);
    await isAsked("draft/change", {
      attribute: "intensity",
      heads: FIVE,
      preview: false,
      fade_s: 0,
      ...asked,
    });
  });
  it("are typed where the slider has the focus", async () => {
    const { user } = await look();
    act(() => group("Intensity").getByRole("slider").focus());
    await user.keyboard("35{Enter}");
    await isAsked("draft/change", { text: "35", heads: FIVE });
  });
  it("say from least to most where lights differ, and how many have it", async () => {
    withBase((values) => {
      const level = values.find((one) => one.attribute === "intensity")!;
      Object.assign(level, { least: 42, most: 60, mixed: true });
      Object.assign(
        values.find((one) => one.attribute === "zoom")!,
        { heads: FIVE.slice(0, 2) },
      );
    });
    await look();
    expect(group("Intensity").getByRole("textbox")).toHaveValue("42 … 60");
    expect(screen.getByRole("button", { name: "Zoom: home. Why?" })).toHaveTextContent("2 of 5 have it");
  });
  it("that mean nothing are told in the server's words, and nothing is lost", async () => {
    const { user } = await look();
    server.gives(
      "POST /api/draft/change",
      new Fault("“loud” is no value: type a number such as 60, +10 or -5."),
    );
    const field = group("Intensity").getByRole("textbox");
    await user.clear(field);
    await user.type(field, "loud{Enter}");
    expect(await screen.findByText(/is no value: type a number such as 60/)).toBeVisible();
    expect(field).toHaveValue("0");
  });
  it("that are limited are set and told", async () => {
    const { user } = await look();
    server.gives("POST /api/draft/change", { limited: "Limited to 135 ° by 5 lights." });
    await user.type(group("Tilt").getByRole("textbox"), "200{Enter}");
    expect(await screen.findByText("Limited to 135 ° by 5 lights.")).toBeVisible();
  });
  it("of a wheel are chosen from its slots", async () => {
    const { user } = await look();
    await user.click(group("Gobo").getByRole("radio", { name: "rings" }));
    await isAsked("draft/change", { attribute: "gobo", heads: FIVE, to: 3 });
  });
  it("take as long as is said beside the draft: position apart", async () => {
    const { user } = await look();
    const takes = screen.getByRole("textbox", { name: "Changes take" });
    await user.clear(takes);
    await user.type(takes, "2.5{Enter}");
    for (const [name, seconds] of [["Intensity", 2.5], ["Pan", 0]] as const) {
      await user.type(group(name).getByRole("textbox"), "7{Enter}");
      await isAsked("draft/change", { fade_s: seconds });
    } // prettier-ignore
    expect(useDesk.getState().fades).toEqual({ position: 0, others: 2.5 });
  });
});

describe("the draft", () => {
  it("is listed by value and by head, and each is taken out alone", async () => {
    withDraft({ listed });
    server.gives("DELETE /api/draft", {});
    const { user } = await look();
    const draft = within(screen.getByRole("region", { name: "Draft" }));
    const lines = () => draft.getAllByRole("listitem").map((one) => one.querySelector("span")!.textContent);
    expect(lines()).toEqual(["Gobo: rings, 5 heads", "Zoom: 10 ° (fan), 1 head"]);
    await user.click(draft.getByRole("button", { name: "Take out Gobo, draft" }));
    await isAsked("draft/take-back", { attributes: ["gobo"], heads: FIVE });
    await user.click(draft.getByRole("button", { name: "By head" }));
    expect(lines()).toHaveLength(5);
    await user.click(draft.getByRole("button", { name: "Take out 102" }));
    await isAsked("draft/take-back", { attributes: ["gobo"], heads: ["102"] });
    await user.click(draft.getByRole("button", { name: "Clear the draft" }));
    await waitFor(() => expect(server.edits.at(-1)).toMatchObject({ method: "DELETE", path: "/api/draft" }));
  });
  it.each([
    ["All that is seen now", ["intensity", "position", "colour", "beam"]],
    ["Its position", ["position"]],
  ])("takes from the stage: %s", async (item, families) => {
    const { user } = await look();
    await user.click(screen.getByRole("button", { name: /^Take from stage/ }));
    await user.click(await screen.findByRole("menuitem", { name: item }));
    await isAsked("draft/take", { heads: FIVE, families });
  });
  it("is prepared blind, and says what happens to the stage", async () => {
    const page = await look();
    await page.user.click(screen.getByRole("button", { name: "Prepare blind" }));
    expect(page.actions()).toEqual([{ do: "blind" }]);
    page.tell({ blind: true });
    const blind = within(screen.getByRole("region", { name: "Blind" }));
    expect(blind.getByText(/The stage stays as it was/)).toBeVisible();
    expect(screen.getByRole("button", { name: "Prepare blind" })).toBeDisabled();
    await page.user.click(blind.getByRole("button", { name: "Send in 3 s" }));
    expect(page.actions().at(-1)).toMatchObject({ do: "blind", on: false, send_s: 3 });
  });
});

describe("why a light is as it is", () => {
  it("is told step by step, from what is written to what is sent", async () => {
    await look();
    act(() => desk.ask({ head: "101", attribute: null }));
    const why = within(await screen.findByRole("complementary", { name: "Why" }));
    expect(await why.findByRole("heading", { name: /^Why: Rear spot 101/ })).toBeVisible();
    expect(why.getAllByRole("listitem").length).toBeGreaterThan(0);
  });
});
