import { HeartPulse } from "lucide-react";

/** What hurts and what to keep in mind, wherever something is chosen for a student. */
export function KeepInMind({ hurts, history }: { hurts: string; history: string }) {
  if (!hurts && !history) return null;
  return (
    <p
      className="flex min-w-0 items-center gap-2 border-l-4 border-brass pl-2 text-sm"
      title={[hurts && `Hurts: ${hurts}`, history].filter(Boolean).join("\n")}
    >
      <HeartPulse size={16} aria-hidden className="shrink-0" />
      <span className="min-w-0 truncate">
        {hurts && (
          <>
            <strong>Hurts:</strong> {hurts}.{" "}
          </>
        )}
        {history}
      </span>
    </p>
  );
}
