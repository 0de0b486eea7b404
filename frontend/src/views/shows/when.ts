const DAY_MS = 86_400_000;
const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });
const day = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short" });
const longAgo = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" });

const midnight = (at: Date) => new Date(at.getFullYear(), at.getMonth(), at.getDate()).getTime();

/** When something was, seen from now: today and yesterday by the clock, further back by the date. at: s since 1970; 0: never. */
export function when(at: number, now: Date): string {
  if (!at) return "never";
  const then = new Date(at * 1000);
  const days = Math.round((midnight(now) - midnight(then)) / DAY_MS);
  if (days === 0) return `today, ${clock.format(then)}`;
  if (days === 1) return `yesterday, ${clock.format(then)}`;
  return then.getFullYear() === now.getFullYear()
    ? `${day.format(then)}, ${clock.format(then)}`
    : longAgo.format(then);
}

/** How many days a deleted show can still be taken back. */
export const daysLeft = (deleted: number, days: number, now: Date) =>
  Math.max(0, Math.ceil((deleted * 1000 + days * DAY_MS - now.getTime()) / DAY_MS));
