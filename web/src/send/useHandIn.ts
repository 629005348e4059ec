import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { ApiError } from "../api/client";
import type { KeptForm } from "../parts/useKeptForm";
import type { ClipUploads } from "./clipUploads";

interface Came {
  refused: string[];
}

/** Hands finished uploads in with a form; afterwards says which files were refused, if any. */
export function useHandIn(uploads: ClipUploads, refreshes: string | null, done: () => void, kept?: KeptForm) {
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
      kept?.clear();
      if (refreshes) await queries.invalidateQueries({ queryKey: [refreshes] });
      if (came.refused.length) setRefused(came.refused);
      else done();
    } catch (trouble) {
      uploads.handedIn(false);
      setError(trouble as Error);
      // Where only the answer was lost they may be in already: pressed again, the server says so.
      if (trouble instanceof ApiError && trouble.status === 422) await uploads.dropForgotten();
    } finally {
      setBusy(false);
    }
  };
  return { handIn, busy, error, refused, waiting };
}

export type HandIn = ReturnType<typeof useHandIn>;
