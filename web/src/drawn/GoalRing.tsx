import type { GoalState } from "./changeWords";

/** A goal that was reached is a filled ring, on the way half filled, not yet empty; no answer a broken one. */
export function GoalRing({ state }: { state: GoalState | null }) {
  const unknown = state === null || state === "cannot_be_told" || state === "no_swing_since";
  return (
    <svg width={14} height={14} aria-hidden="true" className="mt-0.5 shrink-0">
      <circle
        cx={7}
        cy={7}
        r={5.5}
        fill={state === "reached" ? "currentColor" : "none"}
        stroke="currentColor"
        strokeWidth={1.6}
        strokeDasharray={unknown ? "2 2" : undefined}
      />
      {state === "on_the_way" && <path d="M7 1.5a5.5 5.5 0 0 1 0 11z" fill="currentColor" />}
    </svg>
  );
}
