import { HeartPulse } from "lucide-react";

interface Props {
  hurts: string;
  history: string; // what to keep in mind of the student
  miss?: string; // the usual one
}

/** What hurts, what to keep in mind and the usual miss, wherever something is chosen for a student. */
export function KeepInMind({ hurts, history, miss }: Props) {
  if (!hurts && !history && !miss) return null;
  return (
    <div className="flex min-w-0 shrink-0 items-center gap-x-3 border-l-4 max-lg:flex-wrap border-brass pl-2 text-sm">
      {hurts && (
        <p className="flex min-w-0 items-center gap-2 font-medium">
          <HeartPulse size={16} aria-hidden className="shrink-0" />
          <span className="min-w-0">
            <strong>Hurts:</strong> {hurts}
          </span>
        </p>
      )}
      {history && (
        <p className="min-w-0 shrink lg:line-clamp-2" title={history}>
          {history}
        </p>
      )}
      {miss && (
        <p className="opacity-90 md:shrink-0">
          <strong>Usual miss:</strong> {miss}
        </p>
      )}
    </div>
  );
}
