import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got, type Schemas } from "../../api/client";
import { useBenchStore } from "../benchContext";

/** Says who plays in a clip by a point on them, or leaves it to the machine; a worker looks at the clip again. */
export function useShowPlayer(clipId: string) {
  const bench = useBenchStore();
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (at: Schemas["PlayerAt"] | null) =>
      got(api.PUT("/api/clips/{id}/player", { params: { path: { id: clipId } }, body: { at } })),
    onSuccess: () => {
      bench.getState().set({ tool: null });
      return queries.invalidateQueries({ queryKey: ["swing"] });
    },
    onError: (error) => bench.getState().say(error.message),
  });
}
