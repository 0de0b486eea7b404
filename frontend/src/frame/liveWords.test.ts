import { expect, it } from "vitest";

import { liveWords } from "./liveWords";

it.each([
  [1, 1, ""],
  [0.6, 1, " · live: depth 60 %"],
  [1, 2 ** 0.5, " · live: speed × 1.41"],
  [0, 0.25, " · live: depth 0 %, speed × 0.25"],
])("says what of depth %d and speed %d is live", (depth, speed, words) => {
  expect(liveWords(depth, speed)).toBe(words);
});
