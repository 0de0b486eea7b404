import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";

import { LaneList } from "./LaneList";

const lane = (n: number, heads: string[]) => ({ lane: n, heads, offset: n / 8, share: 1 / 8 });

describe("lanes", () => {
  it.each([
    [false, "45°"],
    [true, "turn 0.13"],
  ])("say where they are in the cycle (relay: %s)", (relay, where) => {
    render(<LaneList lanes={[lane(1, ["101"])]} relay={relay} chosen={null} onChoose={vi.fn()} />);
    expect(screen.getByRole("listitem")).toHaveTextContent(`Lane 2101${where}`);
  });
  it("have the chosen head pressed, in looks and for ears, and choose another", async () => {
    const choose = vi.fn();
    render(<LaneList lanes={[lane(0, ["101", "102"])]} relay={false} chosen="102" onChoose={choose} />);
    const heads = screen.getAllByRole("button");
    expect(heads.map((one) => one.getAttribute("aria-pressed"))).toEqual(["false", "true"]);
    expect(heads.map((one) => one.hasAttribute("data-chosen"))).toEqual([false, true]);
    await userEvent.click(heads[0]!);
    expect(choose).toHaveBeenCalledWith("101");
  });
  it("tell how many heads and lanes are not listed", () => {
    const many = Array.from({ length: 15 }, (_, n) => `${101 + n}`);
    const lanes = Array.from({ length: 26 }, (_, n) => lane(n, n ? [] : many));
    render(<LaneList lanes={lanes} relay={false} chosen={null} onChoose={vi.fn()} />);
    expect(screen.getAllByRole("listitem")).toHaveLength(24);
    expect(screen.getAllByRole("button")).toHaveLength(12);
    expect(screen.getByText("and 3 more")).toBeVisible();
    expect(screen.getByText("and 2 more lanes")).toBeVisible();
  });
});
