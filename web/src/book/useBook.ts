import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { bookQuery, catalogueQuery } from "../api/queries";
import { failed } from "../shell/undo";
import type { UnitOf } from "./words";

/** The unit of each reading. */
export function useUnits(): UnitOf {
  const kinds = useQuery(catalogueQuery).data?.readings ?? [];
  return Object.fromEntries(kinds.map(({ reading, unit }) => [reading, unit]));
}

/** Keeps and takes out pages of one's own. */
export function usePages() {
  const queries = useQueryClient();
  const anew = () =>
    Promise.all(
      [bookQuery.queryKey, ["models"], ["judgement"]].map((queryKey) =>
        queries.invalidateQueries({ queryKey }),
      ),
    );
  const write = useMutation({
    mutationFn: (page: { document: Record<string, unknown> } | { text: string }) =>
      got(api.POST("/api/book/pages", { body: page })),
    onSuccess: anew,
  });
  const remove = useMutation({
    mutationFn: ({ kind, piece }: { kind: string; piece: string }) =>
      got(api.DELETE("/api/book/pages/{kind}/{piece}", { params: { path: { kind, piece } } })),
    onSuccess: anew,
    onError: failed,
  });
  return { write, remove };
}
