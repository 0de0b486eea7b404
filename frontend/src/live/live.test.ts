// @vitest-environment jsdom
import { act } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";

import { rendered } from "../rendered";
import { onEveryFrame, wake } from "./loop";
import { shownTheta, useLive, useLivePart, useTempos, type LiveState } from "./socket";

const chip = { key: "draft:1", frozen: false, theta_shifts: [0.25, 0] };
const told = (beat: number, more: object = {}) =>
  ({
    t: beat,
    tempos: [{ name: "Movement", bpm: 96, beat }],
    running: [chip],
    ...more,
  }) as unknown as LiveState;

describe("the live state", () => {
  beforeEach(() => act(() => useLive.setState({ state: told(1) })));

  it("renders a part again only when something in it changes, though all of it is told anew", () => {
    const tempos = rendered(useTempos);
    const first = tempos.now;
    expect(first).toEqual([{ name: "Movement", bpm: 96 }]);
    act(() => useLive.setState({ state: told(2) }));
    expect(tempos.now).toBe(first);
    expect(tempos.times).toBe(1);
    act(() => useLive.setState({ state: told(3, { tempos: [{ name: "Movement", bpm: 120, beat: 3 }] }) }));
    expect(tempos.now).toEqual([{ name: "Movement", bpm: 120 }]);
    tempos.end();
  });

  it("tells parts of nothing before the first word", () => {
    act(() => useLive.setState({ state: null }));
    const part = rendered(() => useLivePart((state) => state?.running[0]?.frozen ?? null));
    expect(part.now).toBeNull();
    act(() => useLive.setState({ state: told(1) }));
    expect(part.now).toBe(false);
    part.end();
  });

  it("shows θ with the shift that edits have left, and of what does not run as it is", () => {
    expect(shownTheta(3, "draft:1", 0)).toBe(3.25);
    expect(shownTheta(3, "draft:1", 1)).toBe(3);
    expect(shownTheta(3, "draft:2", 0)).toBe(3);
  });
});

describe("the animation loop", () => {
  it("paints once for whatever is new, and not at all when nothing is", () => {
    const turns: FrameRequestCallback[] = [];
    const asked = vi.spyOn(window, "requestAnimationFrame").mockImplementation((turn) => turns.push(turn));
    const turn = () => turns.splice(0).forEach((one) => one(0));
    const painter = vi.fn();
    const stop = onEveryFrame(painter);
    turn();
    expect(painter).toHaveBeenCalledTimes(1);
    turn();
    expect(painter).toHaveBeenCalledTimes(1);
    wake();
    wake();
    turn();
    expect(painter).toHaveBeenCalledTimes(2);
    stop();
    wake();
    expect(turns).toHaveLength(0);
    asked.mockRestore();
  });
});
