/** What is wrong with a typed number, in words; empty when it is within its range or not a number yet. */
export function outOfRange(typed: string, least: number, most: number, unit: string): string {
  const value = Number(typed.replace(",", "."));
  if (!typed.trim() || !Number.isFinite(value) || (value >= least && value <= most)) return "";
  const joined = unit === "°" || !unit ? unit : ` ${unit}`;
  const nearest = value < least ? least : most;
  return `It goes from ${least} to ${most}${joined}; ${typed.trim()} becomes ${nearest}${joined}.`;
}
