import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got, type Schemas } from "../api/client";
import { done, failed } from "../shell/undo";

export type Binned = Schemas["BinnedOut"];
type Kept = Exclude<Binned["kind"], "file">;

/** Taking things out of the bin, and erasing them for good. */
export function useBin() {
  const queries = useQueryClient();
  const all = () => queries.invalidateQueries();
  const takeBack = useMutation({
    mutationFn: ({ kind, id }: { kind: Kept; id: string }) =>
      got(api.POST("/api/bin/{kind}/{id}/take-back", { params: { path: { kind, id } } })),
    onSuccess: all,
  });
  const erase = useMutation({
    mutationFn: ({ kind, id }: Pick<Binned, "kind" | "id">) =>
      got(api.DELETE("/api/bin/{kind}/{id}", { params: { path: { kind, id } } })),
    onSuccess: all,
  });
  return { takeBack, erase };
}

/** Putting a student, a swing or a reference into the bin, with an undo at hand. */
export function useRemoval(kind: Kept, title: string, remove: () => Promise<unknown>, id: string) {
  const queries = useQueryClient();
  const { takeBack } = useBin();
  return useMutation({
    mutationFn: remove,
    onError: failed,
    onSuccess: async () => {
      await queries.invalidateQueries();
      done(`${title} is in the bin for 30 days.`, () => takeBack.mutate({ kind, id }, { onError: failed }));
    },
  });
}
