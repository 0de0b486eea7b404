// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { Refused, take } from "./client";
import { catchUp, ownEdit, queries, refresh, showHasChanged } from "./queries";

const asked = vi.spyOn(queries, "invalidateQueries").mockResolvedValue(undefined);
const hasChanged = (before: number, now: number) =>
  showHasChanged({ session: "a", revision: before }, { session: "a", revision: now });
const kinds = () => asked.mock.calls.map(([filters]) => filters!.queryKey![0]);

describe("what is asked anew", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    asked.mockClear();
  });
  afterEach(() => vi.useRealTimers());

  it("after an edit of another window: all that an edit can change", async () => {
    hasChanged(4, 5);
    await vi.advanceTimersByTimeAsync(400);
    expect(kinds()).toEqual(expect.arrayContaining(["show", "effects", "draft", "pages", "weave"]));
  });
  it("after an own edit, whose answer has told it: only what can be undone", async () => {
    await ownEdit(() => Promise.resolve({ revision: 6 }));
    hasChanged(5, 6);
    await vi.advanceTimersByTimeAsync(400);
    expect(kinds()).toEqual(["show"]);
  });
  it("of what was missed: all, once it has been behind for a while", async () => {
    const told = (revision: number, session = "a") => ({ session, revision });
    queries.setQueryData(["show"], told(7));
    for (const [revision, now] of [
      [7, 0],
      [8, 100],
      [8, 900],
      [8, 1050],
    ] as const)
      catchUp(told(revision), now);
    catchUp(told(9, "another"), 1150);
    catchUp(told(8), 1200);
    await vi.advanceTimersByTimeAsync(400);
    expect(kinds()).toEqual([]);
    catchUp(told(8), 2300);
    await vi.advanceTimersByTimeAsync(400);
    expect(kinds()).toEqual(expect.arrayContaining(["show", "cue-lists"]));
  });
  it("waits for the answer of an own edit before it judges a new revision", async () => {
    let answer: (told: { revision: number }) => void = () => undefined;
    const edit = ownEdit(() => new Promise<{ revision: number }>((resolve) => (answer = resolve)));
    hasChanged(6, 7);
    await vi.advanceTimersByTimeAsync(2000);
    expect(kinds()).toEqual([]);
    answer({ revision: 7 });
    await edit;
    await vi.advanceTimersByTimeAsync(400);
    expect(kinds()).toEqual(["show"]);
  });
  it("when another edit came between own ones: all", async () => {
    await ownEdit(() => Promise.resolve({ revision: 9 }));
    hasChanged(7, 9);
    await vi.advanceTimersByTimeAsync(400);
    expect(kinds()).toContain("effects");
  });
  it.each([
    ["a restarted server", { session: "b", revision: 1 }],
    ["a counter that went back", { session: "a", revision: 3 }],
    ["hours of edits", { session: "a", revision: 1_700_000_000_000 }],
  ])("after %s: all, at once", async (_, now) => {
    await ownEdit(() => Promise.resolve({ revision: 1 }));
    const begun = performance.now();
    showHasChanged({ session: "a", revision: 9 }, now);
    expect(performance.now() - begun).toBeLessThan(50);
    await vi.advanceTimersByTimeAsync(400);
    expect(kinds()).toContain("effects");
  });
  it("once for many edits in a row", async () => {
    for (let n = 0; n < 5; n++) refresh();
    await vi.advanceTimersByTimeAsync(400);
    expect(kinds().filter((kind) => kind === "effects")).toHaveLength(1);
  });
});

describe("answers", () => {
  const answer = (status: number, body: object) =>
    Promise.resolve({ ...body, response: new Response("{}", { status }) });

  it("are taken as they are, or refused with the server's words and place", async () => {
    expect(await take(answer(200, { data: { a: 1 } }))).toEqual({ a: 1 });
    const fault = { error: { message: "There is no head 7.", place: "heads" } };
    await expect(take(answer(422, fault))).rejects.toMatchObject({
      message: "There is no head 7.",
      place: "heads",
      status: 422,
    });
    await expect(take(answer(500, {}))).rejects.toThrow("error 500");
    await expect(take(Promise.reject(new TypeError("network")))).rejects.toBeInstanceOf(Refused);
  });
});
