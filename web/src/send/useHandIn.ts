import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { ClipUploads } from "./clipUploads";

interface Came {
  refused: string[];
}

/** Hands finished uploads in with a form; afterwards says which files were refused, if any. */
export function useHandIn(uploads: ClipUploads, refreshes: string | null, done: () => void) {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const [refused, setRefused] = useState<string[]>([]);
  const waiting = uploads.files.length === 0 || uploads.files.some((file) => !file.arrived);
  const handIn = async (send: () => Promise<Came>) => {
    setBusy(true);
    setError(null);
    uploads.handedIn(true); // leaving the page while the server looks at them must not take them away
    try {
      const came = await send();
      if (refreshes) await queries.invalidateQueries({ queryKey: [refreshes] });
      if (came.refused.length) setRefused(came.refused);
      else done();
    } catch (trouble) {
      uploads.handedIn(false);
      setError(trouble as Error);
      await uploads.dropForgotten();
    } finally {
      setBusy(false);
    }
  };
  return { handIn, busy, error, refused, waiting };
}

export type HandIn = ReturnType<typeof useHandIn>;
