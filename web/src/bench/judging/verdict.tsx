import type { Schemas } from "../../api/client";

export type Finding = Schemas["FindingOut"];
export type Judgement = Schemas["JudgementOut"];

export const VERDICT_WORDS: Record<Finding["verdict"], string> = {
  shown: "shown",
  likely: "likely",
  open: "open",
  not_shown: "not shown",
  cannot_be_seen: "cannot be seen",
};

/** How sure a finding is, by fill and edge: full, half, empty and broken, dotted. */
export function VerdictPlate({ of }: { of: Finding["verdict"] }) {
  const broken = of === "open" ? "3 2" : of === "cannot_be_seen" ? "1 2" : undefined;
  return (
    <svg width={14} height={14} viewBox="0 0 14 14" aria-hidden="true" className="mt-0.5 shrink-0">
      <rect
        x={1}
        y={1}
        width={12}
        height={12}
        fill={of === "shown" ? "currentColor" : "none"}
        stroke="currentColor"
        strokeWidth={1.6}
        strokeDasharray={broken}
      />
      {of === "likely" && <rect x={1} y={7} width={12} height={6} fill="currentColor" />}
    </svg>
  );
}

export const percent = (share: number) => `${Math.round(100 * share)} %`;
