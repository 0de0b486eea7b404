// @vitest-environment jsdom
import { QueryClientProvider } from "@tanstack/react-query";
import { act, createElement } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { api } from "../../../api/client";
import { queries } from "../../../api/queries";
import { rendered } from "../../../rendered";
import { useDesk } from "../../../state";
import { useEditor, type Change } from "./useEditor";

interface Asked {
  path: string;
  body: { value?: number; preview?: boolean } | null;
  answer: (status: number, body: object) => Promise<void>;
}
let asked: Asked[] = [];
const ID = 3;
const view = (depth: number) => ({
  id: ID,
  name: "Tide",
  document: { depth, layers: [] },
  sentence: {},
  uses: [],
});
const change = (value: number): Change => ({ operation: "set", path: "layers.0.anchor.depth", value });
const changes = () => asked.filter((one) => one.path.endsWith("/change"));
const TURNS = 20;
/** Let everything happen that waits for its turn: by turns of the event loop, not by the clock, which a busy machine delays. */
const settle = () =>
  act(async () => {
    for (let n = 0; n < TURNS; n++) await new Promise<void>((done) => setTimeout(done, 0));
  });

/** An answer to every change, given when the test wants it; what the page asks at its start is answered at once. */
const answered = (status: number, body: object) => ({
  ...(status < 300 ? { data: body } : { error: body }),
  response: new Response("{}", { status }),
});
const getting = (path: string) =>
  Promise.resolve(
    answered(200, path === "/api/effects/{effect_id}" ? view(60) : { pages: [], effects: [], groups: [] }),
  );
const posting = (path: string, { body }: { body: Asked["body"] }) =>
  path.endsWith("/change")
    ? new Promise((resolve) => {
        const answer = async (status: number, told: object) => {
          resolve(answered(status, told));
          await settle();
        };
        asked.push({ path, body, answer });
      })
    : Promise.resolve(answered(200, { heads: [], notices: [] }));

describe("the effect in the editor", () => {
  let editor: ReturnType<typeof rendered<ReturnType<typeof useEditor>>>;
  const depth = () => (editor.now!.effect.document as { depth: number }).depth;

  beforeEach(async () => {
    asked = [];
    vi.spyOn(api, "GET").mockImplementation(getting as never);
    vi.spyOn(api, "POST").mockImplementation(posting as never);
    useDesk.setState({ effect: { id: ID, key: null } });
    queries.clear();
    editor = rendered(
      () => useEditor(ID, 0),
      (inner) => createElement(QueryClientProvider, { client: queries }, inner),
    );
    await settle();
    expect(depth()).toBe(60);
  });
  afterEach(() => {
    editor.end();
    vi.restoreAllMocks();
  });

  it("previews one change at a time, and of those that wait the last alone", async () => {
    for (const value of [61, 62, 63]) {
      editor.now!.preview(change(value));
      await settle();
    }
    expect(changes().map((one) => one.body!.value)).toEqual([61]);
    await changes()[0]!.answer(200, { effect: view(61), weave: null });
    expect(depth()).toBe(61);
    expect(changes().map((one) => one.body!.value)).toEqual([61, 63]);
    expect(changes().every((one) => one.body!.preview)).toBe(true);
  });

  it("keeps a change: what is shown is what was answered, and then what is kept", async () => {
    void editor.now!.commit(change(70));
    await settle();
    expect(changes()[0]!.body!.preview).toBe(false);
    await changes()[0]!.answer(200, { effect: view(70), weave: null, revision: 9 });
    expect(depth()).toBe(70);
    expect(queries.getQueryData(["effect", ID])).toMatchObject({ document: { depth: 70 } });
  });

  it("leaves a preview aside that answers after a change was kept", async () => {
    editor.now!.preview(change(65));
    await settle();
    void editor.now!.commit(change(70));
    await settle();
    await changes()[1]!.answer(200, { effect: view(70), weave: null, revision: 9 });
    await changes()[0]!.answer(200, { effect: view(65), weave: null });
    expect(depth()).toBe(70);
  });

  it("asks nothing for a preview when the change is kept in the same moment", async () => {
    editor.now!.preview(change(65));
    void editor.now!.commit(change(65));
    await settle();
    expect(changes()).toHaveLength(1);
    expect(changes()[0]!.body!.preview).toBe(false);
  });

  it("is as it was after a refusal", async () => {
    void editor.now!.commit(change(900));
    await settle();
    await changes()[0]!.answer(422, { message: "depth: 0 to 200.", place: "layers.0.anchor.depth" });
    expect(depth()).toBe(60);
    expect(editor.now!.gone).toBe(false);
  });
});
