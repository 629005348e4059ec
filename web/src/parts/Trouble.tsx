import { CircleAlert } from "lucide-react";

/** Something went wrong, said plainly. */
export function Trouble({ error, retry }: { error: Error; retry?: () => void }) {
  return (
    <div role="alert" className="plate my-3 flex items-start gap-2 border-l-4 border-l-brass p-3 text-sm">
      <CircleAlert size={18} aria-hidden className="mt-0.5 shrink-0" />
      <span className="min-w-0 break-words">{error.message}</span>
      {retry && (
        <button type="button" className="btn btn-xs ml-auto" onClick={retry}>
          Try again
        </button>
      )}
    </div>
  );
}
