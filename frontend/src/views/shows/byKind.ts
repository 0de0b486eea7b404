interface Named {
  what: string;
  name: string;
}

/** Things whose name has a text in it, by what they are, in the order in which they came. */
export function byKind<One extends Named>(every: One[], sought: string): [string, One[]][] {
  const text = sought.trim().toLowerCase();
  const found = new Map<string, One[]>();
  for (const one of every) {
    if (!one.name.toLowerCase().includes(text)) continue;
    found.set(one.what, [...(found.get(one.what) ?? []), one]);
  }
  return [...found];
}
