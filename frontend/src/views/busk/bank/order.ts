/** Numbers in which one is moved by a place. */
export function movedBy(ids: number[], id: number, by: 1 | -1): number[] {
  const at = ids.indexOf(id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= ids.length) return ids;
  const found = [...ids];
  [found[at], found[to]] = [found[to]!, found[at]!];
  return found;
}
