import { screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";

import { desk, useDesk } from "../state";
import { onDemo } from "../testing/page";
import { server } from "../testing/server";
import { spaceIsGo, useShortcuts } from "./shortcuts";

const commands = { undo: vi.fn(), redo: vi.fn(), clearDraft: vi.fn(), help: vi.fn() };

function Page() {
  useShortcuts(commands);
  return (
    <>
      <input id="quick-selection" aria-label="Quick selection" />
      <button>Somewhere</button>
    </>
  );
}
function page() {
  Object.values(commands).forEach((one) => one.mockClear());
  return onDemo(<Page />);
}

describe("keys of the page", () => {
  it.each([
    ["{Control>}z{/Control}", "undo"],
    ["{Control>}{Shift>}Z{/Shift}{/Control}", "redo"],
    ["{Meta>}y{/Meta}", "redo"],
    ["{Shift>}{Escape}{/Shift}", "clearDraft"],
    ["?", "help"],
  ] as const)("%s is %s, wherever the focus is but in text", async (keys, name) => {
    const { user } = page();
    await user.tab();
    await user.keyboard(keys);
    expect(Object.values(commands).flatMap((one) => one.mock.calls)).toEqual([]);
    await user.tab();
    await user.keyboard(keys);
    expect(Object.entries(commands).filter(([, one]) => one.mock.calls.length > 0)).toEqual([
      [name, commands[name]],
    ]);
  });
  it("act on what plays: B is blind, T taps the first tempo", async () => {
    const { user, actions } = page();
    await user.keyboard("bT{Control>}b{/Control}{Alt>}t{/Alt}");
    expect(actions()).toEqual([{ do: "blind" }, { do: "tap", tempo: server.state.tempos[0]!.name }]);
  });
  it("open views by their place, and the stage as large as the screen", async () => {
    const { user } = page();
    await user.keyboard("{Alt>}[Digit5]{/Alt}");
    expect(useDesk.getState().view).toBe("cues");
    await user.keyboard("f");
    expect(useDesk.getState().stages.cues).toBe("full");
  });
  it("Esc closes the innermost thing first, then clears the selection", async () => {
    const { user } = page();
    desk.select(["101"]);
    desk.size("full");
    await user.keyboard("w");
    expect(useDesk.getState().asking).toBe(true);
    const seen = () => {
      const { asking, stages, view, selection } = useDesk.getState();
      return [asking, stages[view] === "full", selection.length];
    };
    const steps = [];
    for (let n = 0; n < 3; n++) {
      await user.keyboard("{Escape}");
      steps.push(seen());
    }
    expect(steps).toEqual([
      [false, true, 1],
      [false, false, 1],
      [false, false, 0],
    ]);
  });
  it("leave what is open alone", async () => {
    const { user, actions, container } = page();
    container.setAttribute("role", "dialog");
    await user.keyboard("bt?");
    expect([actions(), commands.help.mock.calls]).toEqual([[], []]);
  });
  it("Space goes in Cues and Busk, and types where text is typed", async () => {
    const { user } = page();
    expect(spaceIsGo("cues", document.body)).toBe(true);
    expect(spaceIsGo("rig", document.body)).toBe(false);
    await user.keyboard("/");
    expect(screen.getByRole("textbox")).toHaveFocus();
    expect(spaceIsGo("busk", document.activeElement)).toBe(false);
  });
});
