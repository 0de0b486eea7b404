import { expect, it } from "vitest";

import type { Pair } from "../../../api/rerig";
import { along, followed, grouped, nearest, standsFor, withMatch } from "./match";

it("finds the light that is nearest to where one was dropped", () => {
  for (const count of [1, 7, 40])
    for (let n = 0; n < count; n++) expect(nearest(along(n, count), count)).toBe(n);
  expect([nearest(-0.2, 5), nearest(1.4, 5)]).toEqual([0, 4]);
});

it("changes one light of a match, which is by hand from then on", () => {
  const pair = { way: "middle", match: [] } as unknown as Pair;
  const now = withMatch(pair, [1, 2, 3], 1, -1);
  expect([now.way, now.match]).toEqual(["hand", [1, -1, 3]]);
  expect(followed([1, 1, -1, 3])).toBe(2);
  expect([standsFor(11, 102), standsFor(11, undefined)]).toEqual([
    "11 takes over from 102",
    "11 takes over from none",
  ]);
});

it("keeps what changes together by what it is", () => {
  const changes = ["cues", "rows", "cues"].map((what, n) => ({ what, n }));
  expect(grouped(changes).map(([what, of]) => [what, of.map((one) => one.n)])).toEqual([
    ["cues", [0, 2]],
    ["rows", [1]],
  ]);
});
