interface Searched {
  name: string;
  document: Record<string, unknown>;
  sentence: { text: string };
}

/** Effects whose name, tags or sentence have all the words. */
export function found<T extends Searched>(effects: readonly T[], search: string): T[] {
  const words = search
    .toLowerCase()
    .split(/[\s,]+/)
    .filter(Boolean);
  return effects.filter((effect) => {
    const tags = (effect.document.tags as string[] | undefined) ?? [];
    const text = `${effect.name} ${tags.join(" ")} ${effect.sentence.text}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
}

/** What the library can be narrowed to. */
export const KINDS = [
  { id: "all", text: "All effects" },
  { id: "favourite", text: "Favourites" },
  { id: "intensity", text: "Intensity" },
  { id: "position", text: "Position" },
  { id: "colour", text: "Colour" },
  { id: "beam", text: "Beam" },
  { id: "mixed", text: "Mixed" },
];

interface Kinded {
  favourite: boolean;
  families: string[];
}

/** Effects of a kind: of one family alone, of several, or marked as favourites. */
export function ofKind<T extends Kinded>(effects: readonly T[], kind: string): T[] {
  if (kind === "all") return [...effects];
  if (kind === "favourite") return effects.filter((effect) => effect.favourite);
  if (kind === "mixed") return effects.filter((effect) => effect.families.length > 1);
  return effects.filter((effect) => effect.families.length === 1 && effect.families[0] === kind);
}
