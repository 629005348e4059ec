const DAY_MS = 86_400_000;
const DAY_ALONE = "2026-09-02".length;

/** "3 hours ago" for today and yesterday, else the date. */
export function when(iso: string, now = Date.now()): string {
  const then = new Date(iso);
  const age = now - then.getTime();
  if (age < 2 * DAY_MS) {
    const relative = new Intl.RelativeTimeFormat("en", { numeric: "auto" });
    const hours = Math.round(age / 3_600_000);
    if (hours < 1) return relative.format(-Math.max(0, Math.round(age / 60_000)), "minute");
    return relative.format(-hours, "hour");
  }
  return day(iso);
}

/** A day as the user's own locale writes it, the month in letters: no two orders of day and month to mistake. */
export function day(iso: string): string {
  const timeZone = iso.length === DAY_ALONE ? "UTC" : undefined; // a day without an hour is the same everywhere
  return new Date(iso).toLocaleDateString(undefined, {
    day: "numeric",
    month: "short",
    year: "numeric",
    timeZone,
  });
}
