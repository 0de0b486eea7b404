import { screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import type { Timeline } from "../../../api/timelines";
import { onDemo } from "../../../testing/page";
import { server } from "../../../testing/server";
import { NewTrack } from "./NewTrack";

const ABLE = {
  cues: [
    { subject: "list:2", what: "Saltworks", of: "cue list" },
    { subject: "list:3", what: "Walk-in", of: "cue list" },
  ],
  messages: [{ subject: "device:1", what: "Pixel server", of: "device" }],
};

/** The sheet of the demo's song that has a list, presses, levels and messages. */
async function sheet() {
  server.gives("GET /api/timelines/drivable*", ({ path }: { path: string }) => ({
    drivables: path.endsWith("messages") ? ABLE.messages : path.endsWith("cues") ? ABLE.cues : [],
  }));
  server.gives("POST /api/timelines/2/tracks", { id: 9 });
  const { user } = onDemo(<NewTrack song={server.recorded<Timeline>("/api/timelines/2")} />);
  await user.click(screen.getByRole("button", { name: /^New track/ }));
  const inside = within(await screen.findByRole("dialog", { name: "New track: what is it for?" }));
  const choose = async (label: RegExp, option: string) => {
    await user.click(await inside.findByRole("button", { name: label }));
    await user.click(await screen.findByRole("option", { name: option }));
  };
  return { user, inside, choose };
}

describe("a new track", () => {
  it("drives what no track of the song drives yet, is named after it, and is armed", async () => {
    const { user, inside, choose } = await sheet();
    const make = inside.getByRole("button", { name: "Make the track" });
    expect(make).toBeDisabled();
    await waitFor(() => expect(inside.getByRole("button", { name: /It drives/ })).toBeEnabled());
    await user.click(inside.getByRole("button", { name: /It drives/ }));
    const options = await screen.findAllByRole("option");
    expect(options.map((one) => one.textContent)).toEqual(["Walk-in · cue list"]);
    await user.click(options[0]!);
    expect(inside.getByRole("textbox", { name: "Name" })).toHaveValue("Walk-in");
    await choose(/It belongs to/, "Light");
    await user.click(make);
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(server.bodies("timelines/2/tracks")).toMatchObject([
      { name: "Walk-in", kind: "cues", group: "light", drives: "list:3", armed: true },
    ]);
  });
  it("of messages to a device may share it, belongs to video, and is not armed", async () => {
    const { user, inside, choose } = await sheet();
    await choose(/It plays/, "Messages to a device");
    expect(inside.getByText("Each event sends one.")).toBeVisible();
    await choose(/It drives/, "Pixel server · device");
    const name = inside.getByRole("textbox", { name: "Name" });
    await user.clear(name);
    await user.click(inside.getByRole("button", { name: "Make the track" }));
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(server.bodies("timelines/2/tracks")).toMatchObject([
      { name: "Pixel server", group: "video", drives: "device:1", armed: false },
    ]);
  });
  it("says when nothing is left that it could drive", async () => {
    const { user, inside, choose } = await sheet();
    await choose(/It plays/, "The level of a fader");
    expect(await inside.findByText("Nothing is left that it could drive")).toBeVisible();
    expect(inside.getByRole("button", { name: "Make the track" })).toBeDisabled();
    await user.click(inside.getByRole("button", { name: "Cancel" }));
    expect(screen.queryByRole("dialog")).toBeNull();
    expect(server.edits).toEqual([]);
  });
});
