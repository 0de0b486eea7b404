import { useQuery } from "@tanstack/react-query";

import { api, take, type Schemas } from "./client";

export type ColourView = Schemas["ColourView"];
export type Picker = Schemas["PickerView"];

/** Ways to pick a colour, with their numbers. */
export const usePickers = () =>
  useQuery({
    queryKey: ["pickers"],
    queryFn: async () => (await take(api.GET("/api/colour/pickers"))).pickers,
  });

/** A colour (drives 0 to 1) in every way to pick it, and what lights do for it. */
export const useColour = (drives: number[] | null, heads: string[]) =>
  useQuery({
    queryKey: ["colour", drives, heads],
    enabled: drives !== null,
    queryFn: () => {
      const numbers = drives!.map((one) => Math.min(Math.max(one * 100, 0), 100));
      return take(api.POST("/api/colour/read", { body: { picker: "rgb", numbers, heads } }));
    },
    placeholderData: (before) => before,
  });

/** Ways between two colours in every space, and which of them the show takes. */
export const useWays = (start: string, end: string) =>
  useQuery({
    queryKey: ["show", "ways", start, end],
    queryFn: () => take(api.POST("/api/colour/ways", { body: { start, end } })),
    placeholderData: (before) => before,
  });
