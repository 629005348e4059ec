import { CloudOff } from "lucide-react";
import { useConnection } from "../api/connection";

/** Says on every screen that the server cannot be reached, and what becomes of what is done meanwhile. */
export function ConnectionNote({ kept }: { kept: string }) {
  const lost = useConnection((connection) => connection.lost);
  if (!lost) return null;
  return (
    <p role="alert" className="flex items-center gap-2 border-b border-brass bg-base-200 px-4 py-1.5 text-sm">
      <CloudOff size={16} aria-hidden className="shrink-0" />
      No connection. {kept}
    </p>
  );
}
