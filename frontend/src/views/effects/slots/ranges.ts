/** What is wrong with a typed number, in words; empty when it is within its range or not a number yet. */
export function outOfRange(typed: string, low: number, high: number, unit: string): string {
  const value = Number(typed.replace(",", "."));
  if (!typed.trim() || !Number.isFinite(value) || (value >= low && value <= high)) return "";
  const joined = unit === "°" || !unit ? unit : ` ${unit}`;
  const nearest = value < low ? low : high;
  return `It goes from ${low} to ${high}${joined}; ${typed.trim()} becomes ${nearest}${joined}.`;
}
