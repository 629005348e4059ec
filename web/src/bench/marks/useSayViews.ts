import { useMutation } from "@tanstack/react-query";
import { api, got } from "../../api/client";
import { useBenchStore } from "../benchContext";
import type { Side } from "../benchState";

/** Says whether a stage's two views are one swing, and takes in what follows. */
export function useSayViews(side: Side) {
  const bench = useBenchStore();
  return useMutation({
    mutationFn: (one_swing: boolean) => {
      const id = bench.getState().sides[side]?.swing.id ?? "";
      return got(api.PUT("/api/swings/{id}/views", { params: { path: { id } }, body: { one_swing } }));
    },
    onSuccess: (answer) => bench.getState().heard(side, answer),
  });
}
