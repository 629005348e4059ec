import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { upload } from "../api/upload";
import { filled } from "./ClipFields";

/** Sends a form with a clip and follows it; `share` is 0 to 1 while it is on its way, else null. */
export function useUpload(url: string, refreshes: string, done: () => void) {
  const queries = useQueryClient();
  const [share, setShare] = useState<number | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    setError(null);
    setShare(0);
    try {
      await upload(url, filled(event.currentTarget), setShare);
      await queries.invalidateQueries({ queryKey: [refreshes] });
      done();
    } catch (trouble) {
      setError(trouble as Error);
      setShare(null);
    }
  };
  return { submit, share, error };
}
