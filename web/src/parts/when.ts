const DAY_MS = 86_400_000;

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
  return then.toLocaleDateString("en", { day: "numeric", month: "short", year: "numeric" });
}
