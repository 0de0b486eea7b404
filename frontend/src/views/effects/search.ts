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
