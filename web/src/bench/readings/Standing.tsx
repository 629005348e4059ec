import type { Reading } from "./reading";

/** Position by shape: full inside the band, half at its edge, a wedge that points the way to go. */
export function Standing({ of }: { of: Reading["standing"] }) {
  return (
    <svg width={12} height={12} viewBox="-6 -6 12 12" aria-hidden="true" className="shrink-0">
      {of === "inside" && <circle r={4.5} fill="currentColor" />}
      {of === "edge" && (
        <>
          <circle r={4} fill="none" stroke="currentColor" strokeWidth={1.4} />
          <path d="M0 -4a4 4 0 0 0 0 8z" fill="currentColor" />
        </>
      )}
      {of === "below" && (
        <path d="M-4 -4.5L4.5 0L-4 4.5z" fill="none" stroke="currentColor" strokeWidth={1.4} />
      )}
      {of === "above" && (
        <path d="M4 -4.5L-4.5 0L4 4.5z" fill="none" stroke="currentColor" strokeWidth={1.4} />
      )}
      {of === "undecided" && (
        <circle r={4} fill="none" stroke="currentColor" strokeWidth={1.4} strokeDasharray="2 2" />
      )}
    </svg>
  );
}

/** The same in words. */
export function standingWords(of: Reading["standing"]): string {
  if (of === "inside") return "Inside the band.";
  if (of === "edge") return "At the edge of the band: the error reaches over it.";
  if (of === "below") return "Below the band: more is asked for.";
  if (of === "above") return "Above the band: less is asked for.";
  if (of === "undecided") return "The error is too wide to decide.";
  return "";
}
