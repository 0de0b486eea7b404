import { expect, it } from "vitest";

import { bytes, clock, roomFor } from "./recordingWords";

it("says lengths, sizes and room", () => {
  expect([clock(0), clock(65.9), clock(3605)]).toEqual(["0:00", "1:05", "60:05"]);
  expect([bytes(512), bytes(2_300), bytes(1_250_000_000), bytes(123_456_789)]).toEqual([
    "512 bytes",
    "2.3 kB",
    "1.3 GB",
    "123 MB",
  ]);
  expect(roomFor(1e9, 1e6, 1)).toBe("");
  expect([roomFor(1e9, 1e6, 10), roomFor(1e12, 1e6, 10), roomFor(6e7, 1e6, 10)]).toEqual([
    "room for 2 h",
    "room for days",
    "room for 10 min",
  ]);
});
