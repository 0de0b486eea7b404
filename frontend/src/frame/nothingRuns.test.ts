import { expect, test } from "vitest";

import type { Schemas } from "../api/client";
import { nothingRuns } from "./nothingRuns";

const state = (parts: object) => ({ running: [], ...parts }) as unknown as Schemas["LiveState"];

test.each([
  ["an effect", { running: [{}] }],
  ["a list on a cue", { lists: [{ cue: 3 }] }],
  ["a special on its way home", { specials: [{ on: false, phase: "home moving" }] }],
  ["an overlay on its way out", { overlays: [{ on: false, share: 0.2 }] }],
  ["a look on a button", { looks: [{}] }],
  ["an action list", { actions: [{}] }],
  ["two colours", { busk: { two: { mix: 0.5, rows: [1] } } }],
])("with %s something runs", (_, parts) => {
  expect(nothingRuns(state(parts))).toBe(false);
});

test("what is out does not run, and what is not known is not told", () => {
  const out = { lists: [{ cue: null }], specials: [{ phase: "off" }], overlays: [{ on: false, share: 0 }] };
  expect(nothingRuns(state({ ...out, looks: [], actions: [], busk: { two: { mix: 0, rows: [1] } } }))).toBe(
    true,
  );
  expect(nothingRuns(state({}))).toBe(true);
  expect(nothingRuns(null)).toBe(false);
});
