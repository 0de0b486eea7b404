import { expect, it } from "vitest";

import { byKind } from "./byKind";

it("gathers what has a text in its name by what it is", () => {
  const every = [
    { what: "effects", name: "Tide" },
    { what: "palettes", name: "Deep tide" },
    { what: "effects", name: "Brine" },
  ];
  expect(byKind(every, "").map(([what, of]) => [what, of.length])).toEqual([
    ["effects", 2],
    ["palettes", 1],
  ]);
  expect(byKind(every, " TIDE ").map(([, of]) => of.map((one) => one.name))).toEqual([
    ["Tide"],
    ["Deep tide"],
  ]);
  expect(byKind(every, "x")).toEqual([]);
});
