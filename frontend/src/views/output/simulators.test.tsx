import { screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import type { SimulatedNode } from "../../api/output";
import { isAsked, onDemo } from "../../testing/page";
import { Fault, server } from "../../testing/server";
import { DevicesPanel } from "./devices/DevicesPanel";
import { SimulatorsPanel } from "./SimulatorsPanel";

type Row = Partial<SimulatedNode["universes"][number]>;

/** The panel, where the E1.31 node is otherwise than it was recorded. */
async function nodes(more: Partial<SimulatedNode> = {}, row: Row = {}) {
  const told = server.recorded<{ nodes: SimulatedNode[] }>("/api/output/nodes");
  const node = told.nodes.find((one) => one.protocol === "E1.31")!;
  Object.assign(node, more);
  node.universes = node.universes.slice(0, 1).map((one) => ({ ...one, ...row }));
  server.gives("GET /api/output/nodes", told);
  server.gives("POST /api/output/misbehave", ({ body }: { body: object }) => {
    Object.assign(node, body);
    return told;
  });
  const { user } = onDemo(<SimulatorsPanel />);
  const heading = await screen.findByRole("heading", { name: "Simulated E1.31 node" });
  return { user, own: within(heading.parentElement!) };
}

describe("a simulated node", () => {
  it.each<[Row, string]>([
    [{}, "receiving"],
    [{ synchronised: true }, "in step"],
    [{ lost: true, synchronised: true }, "lost"],
    [{ terminated: true, lost: true }, "ended"],
  ])("tells of a universe with %o: %s", async (row, word) => {
    const { own } = await nodes({}, row);
    expect(own.getByText(word, { exact: true })).toBeVisible();
  });
  it("tells what it could not decode, the most frequent first", async () => {
    const { own } = await nodes({ bad: 1207, faults: { "too short": 7, "no such vector": 1200 } });
    expect(
      own.getByText(/1,207 packets could not be decoded: 1,200 × no such vector; 7 × too short\./),
    ).toBeVisible();
  });
  it("misbehaves as it is told, one way beside another, and behaves again", async () => {
    const { user, own } = await nodes();
    const behave = own.getByRole("button", { name: "Behave" });
    expect(behave).toBeDisabled();
    const late = own.getByRole("textbox", { name: /Comes late by/ });
    await user.clear(late);
    await user.type(late, "40{Tab}");
    await isAsked("output/misbehave", { protocol: "E1.31", delay_ms: 40, drop: 0, vanished: false });
    await user.click(own.getByRole("button", { name: "Unplug it" }));
    await isAsked("output/misbehave", { delay_ms: 40, vanished: true });
    expect(await own.findByRole("button", { name: "Unplugged" })).toHaveAttribute("aria-pressed", "true");
    await user.click(behave);
    await isAsked("output/misbehave", { delay_ms: 0, drop: 0, vanished: false, name: "" });
    await waitFor(() => expect(behave).toBeDisabled());
  });
  it("is told how to be started where none runs", async () => {
    server.gives("GET /api/output/nodes", { nodes: [] });
    onDemo(<SimulatorsPanel />);
    expect(await screen.findByText(/The simulated nodes do not run/)).toBeVisible();
  });
});

describe("a device", () => {
  async function sheet() {
    const { user } = onDemo(<DevicesPanel />);
    await user.click(await screen.findByRole("button", { name: "Add a device …" }));
    const inside = within(await screen.findByRole("dialog", { name: "New device" }));
    await user.type(inside.getByRole("textbox", { name: "Name" }), "Wall");
    const choose = async (label: RegExp, option: string) => {
      await user.click(inside.getByRole("button", { name: label }));
      await user.click(await screen.findByRole("option", { name: option }));
    };
    return { user, inside, choose };
  }
  it("is asked for what it needs where it is, and a foreign address only once that is agreed to", async () => {
    const { user, inside, choose } = await sheet();
    expect(inside.queryByRole("textbox", { name: "Address" })).toBeNull();
    await choose(/Where it is/, "an address (UDP)");
    await user.type(inside.getByRole("textbox", { name: "Address" }), "192.0.2.20");
    server.gives("POST /api/output/devices", new Fault("192.0.2.20 is another machine.", 422, "agreed"));
    await user.click(inside.getByRole("button", { name: "Add" }));
    expect(await inside.findByRole("alert")).toHaveTextContent("192.0.2.20 is another machine.");
    server.gives("POST /api/output/devices", server.recorded("/api/output/devices"));
    await user.click(inside.getByRole("button", { name: "Agree and keep" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    const document = { speaks: "OSC", to: "192.0.2.20", port: 8000 };
    expect(server.bodies("output/devices")).toEqual([
      { name: "Wall", document, agreed: false },
      { name: "Wall", document, agreed: true },
    ]);
  });
  it("of MIDI may be at a port, of which there is none now; another fault leaves what was typed", async () => {
    const { user, inside, choose } = await sheet();
    await choose(/Speaks/, "MIDI");
    await choose(/Where it is/, "a MIDI port of this machine");
    expect(inside.getByText("There is none now")).toBeVisible();
    await choose(/Where it is/, "the simulator on this machine");
    server.gives("POST /api/output/devices", new Fault("There is a device “Wall” already."));
    await user.click(inside.getByRole("button", { name: "Add" }));
    expect(await inside.findByRole("alert")).toHaveTextContent("There is a device “Wall” already.");
    expect(inside.queryByRole("button", { name: "Agree and keep" })).toBeNull();
    expect(inside.getByRole("textbox", { name: "Name" })).toHaveValue("Wall");
    expect(server.bodies("output/devices")[0]).toMatchObject({
      document: { speaks: "MIDI", to: "simulator", port: 0 },
    });
  });
});
