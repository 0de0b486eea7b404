/** A list with some of it moved before or after another of it. */
export function movedTo<T extends { id: number }>(
  list: readonly T[],
  moved: readonly number[],
  target: number,
  where: string,
): T[] {
  const taken = list.filter((one) => moved.includes(one.id));
  const rest = list.filter((one) => !moved.includes(one.id));
  const at = rest.findIndex((one) => one.id === target);
  if (at < 0) return [...list];
  rest.splice(where === "after" ? at + 1 : at, 0, ...taken);
  return rest;
}
