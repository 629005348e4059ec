import type { QueryClient } from "@tanstack/react-query";
import { ApiError } from "./api/client";
import { BACK } from "./api/connection";
import { Queries } from "./api/freshQueries";

/** How all screens ask the server: what is refused is not asked again, and nothing waits to fire later. */
export function createQueries(): QueryClient {
  const queries = new Queries({
    defaultOptions: {
      queries: {
        retry: (tries, error) => !(error instanceof ApiError) && tries < 3,
        staleTime: 5_000,
        networkMode: "always", // without a connection a screen says so; nothing waits to fire later
      },
      mutations: { networkMode: "always" },
    },
  });
  window.addEventListener(BACK, () => void queries.invalidateQueries());
  return queries;
}
