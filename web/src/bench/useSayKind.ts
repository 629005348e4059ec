import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got } from "../api/client";
import type { Kind } from "../send/KindFields";
import { useBenchStore } from "./benchContext";
import type { Side } from "./benchState";

/** Says what a stage's swing was made with and how long it was meant to be, and takes in what follows. */
export function useSayKind(side: Side) {
  const bench = useBenchStore();
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Partial<Kind>) => {
      const id = bench.getState().sides[side]?.swing.id ?? "";
      return got(api.PATCH("/api/swings/{id}/kind", { params: { path: { id } }, body: body as Kind }));
    },
    onSuccess: (answer) => {
      bench.getState().heard(side, answer);
      for (const told of ["swing", "swings", "shelf"]) void queries.invalidateQueries({ queryKey: [told] });
    },
  });
}
