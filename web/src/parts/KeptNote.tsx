import type { KeptForm } from "./useKeptForm";

/** Says that a form begins with what was typed before, and how to be rid of it. */
export function KeptNote({ kept }: { kept: KeptForm }) {
  if (!kept.found) return null;
  return (
    <p role="status" className="mb-3 border-l-4 border-brass pl-2 text-sm">
      What you had typed is still here.{" "}
      <button type="button" className="link" onClick={kept.again}>
        Begin anew
      </button>
    </p>
  );
}
