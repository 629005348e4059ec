import { useQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";

/** The link by which the student of a page sends clips; opened where there is none. */
export const useSendingLink = (token: string) =>
  useQuery({
    queryKey: ["sending", token],
    queryFn: () => got(api.POST("/api/pages/{token}/sending", { params: { path: { token } } })),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
