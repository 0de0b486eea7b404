import { screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import type { Schemas } from "../../../api/client";
import { onDemo } from "../../../testing/page";
import { Fault, server } from "../../../testing/server";
import { RoutesPanel } from "./RoutesPanel";

type Route = Schemas["RouteView"];
const far = (more: Partial<Route> = {}): Partial<Route> => ({
  id: 7,
  line: "1–8 to 192.0.2.20 as E1.31",
  words: "Universes 1–8 go to 192.0.2.20.",
  on: false,
  ask: "Universes 1–8 will be sent as E1.31 to 192.0.2.20, UDP port 5568.",
  document: {
    ...server.recorded("/api/output/routes").routes[0].document,
    universes: "1–8",
    to: "192.0.2.20",
  },
  carried: [],
  ...more,
});
const withRoutes = (routes: object[], more: object = {}) =>
  server.gives("GET /api/output/routes", {
    ...(server.recorded("/api/output/routes") as object),
    routes,
    ...more,
  });
const row = async () => within(await screen.findByRole("listitem", { name: /^1–8 to 192/ }));

describe("routes", () => {
  it("say what they carry, how they do, and what of the rig goes nowhere", async () => {
    withRoutes(server.recorded("/api/output/routes").routes, { lost: "12, 13" });
    onDemo(<RoutesPanel />, { routes: [{ ...server.state.routes[0]!, text: "nobody listens there." }] });
    const first = await screen.findByRole("listitem", { name: "all to simulator as E1.31" });
    expect(first).toHaveTextContent("All universes go to the simulated node on this machine");
    expect(first).toHaveTextContent(/packets\/s/);
    expect(first).toHaveTextContent("nobody listens there.");
    expect(screen.getByText(/^Universes 12, 13 of the rig go nowhere/)).toBeVisible();
  });
  it("say that there is none, and one universe that is lost in its own number", async () => {
    withRoutes([], { lost: "4" });
    onDemo(<RoutesPanel />);
    expect(await screen.findByText(/^No route: nothing is sent/)).toBeVisible();
    expect(screen.getByText(/^Universe 4 of the rig go/)).toBeVisible();
  });
  it("are not switched on to another machine before that was agreed to", async () => {
    withRoutes([far()]);
    server.gives("POST /api/output/routes/*", { done: "Sending" });
    const { user } = onDemo(<RoutesPanel />);
    await user.click((await row()).getByRole("button", { name: /^Send:/ }));
    const asked = within(await screen.findByRole("dialog", { name: "Send to 192.0.2.20?" }));
    expect(asked.getByText(/^Universes 1–8 will be sent as E1\.31/)).toBeVisible();
    await user.click(asked.getByRole("button", { name: "Leave it off" }));
    expect(server.edits).toEqual([]);
    await user.click((await row()).getByRole("button", { name: /^Send:/ }));
    await user.click(within(await screen.findByRole("dialog")).getByRole("button", { name: "Send it" }));
    await waitFor(() => expect(server.edits[0]!.body).toMatchObject({ id: 7, on: true, agreed: true }));
  });
  it("are typed anew; what is wrong stands beside the line, and what was typed stays", async () => {
    withRoutes([far()]);
    server.gives(
      "POST /api/output/routes/*",
      new Fault("Universe 5 stands twice in '1–8, 5': leave one of them out."),
    );
    const { user } = onDemo(<RoutesPanel />);
    await user.click((await row()).getByRole("button", { name: /^Change 1–8/ }));
    const line = (await row()).getByRole("textbox");
    await user.clear(line);
    await user.type(line, "1–8, 5 to 192.0.2.20{Enter}");
    expect(await (await row()).findByText(/^Universe 5 stands twice/)).toBeVisible();
    expect(line).toHaveValue("1–8, 5 to 192.0.2.20");
    server.gives("POST /api/output/routes/*", { id: 7 });
    await user.clear(line);
    await user.type(line, "1–8 to 192.0.2.21{Enter}");
    await waitFor(() => expect(screen.queryByRole("textbox", { name: /^Line of/ })).toBeNull());
    expect(server.edits[1]!.body).toEqual({ id: 7, line: "1–8 to 192.0.2.21" });
  });
  it("are as they were when one leaves their line", async () => {
    withRoutes([far()]);
    const { user } = onDemo(<RoutesPanel />);
    for (const leave of ["{Escape}", ""]) {
      await user.click((await row()).getByRole("button", { name: /^Change 1–8/ }));
      await user.type((await row()).getByRole("textbox"), " and more");
      if (leave) await user.keyboard(leave);
      else await user.click((await row()).getByRole("button", { name: "Leave it" }));
      expect((await row()).getByText("Universes 1–8 go to 192.0.2.20.")).toBeVisible();
    }
    expect(server.edits).toEqual([]);
  });
  it("have all their fields in a form, which forgets what does not fit", async () => {
    withRoutes([far()]);
    server.gives("POST /api/output/routes/*", { done: "Changed" });
    const { user } = onDemo(<RoutesPanel />);
    await user.click((await row()).getByRole("button", { name: /more$/ }));
    await user.click(await screen.findByRole("menuitem", { name: "All its fields" }));
    const form = within(await screen.findByRole("dialog", { name: "A route" }));
    expect(form.getByLabelText("Address")).toHaveValue("192.0.2.20");
    await user.type(form.getByLabelText("The first is numbered there"), "101");
    await user.click(form.getByText("Every frame, also when nothing changes"));
    await user.click(form.getByRole("button", { name: /To$/ }));
    await user.click(await screen.findByRole("option", { name: "The simulated node" }));
    expect(form.getByLabelText("Address")).toBeDisabled();
    await user.click(form.getByRole("button", { name: "Keep" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    const { document } = server.edits[0]!.body as { document: object };
    expect(document).toMatchObject({ to: "simulator", port: 0, first: 101, always: true, universes: "1–8" });
  });
});
