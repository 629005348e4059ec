import { queryOptions, useQuery } from "@tanstack/react-query";
import { api, got } from "../api/client";
import type { Try } from "./tryWords";

const ASKED_EVERY_MS = 2000;

export const triesQuery = (token: string) =>
  queryOptions({
    queryKey: ["tries", token],
    queryFn: () => got(api.GET("/api/pages/{token}/tries", { params: { path: { token } } })),
    refetchInterval: (query) => (query.state.data?.some(isUnderWay) ? ASKED_EVERY_MS : false),
    refetchOnMount: "always",
  });

/** The student's filmed drills; asked for again and again while one is being looked at. */
export const useTries = (token: string) => useQuery(triesQuery(token));

const isUnderWay = ({ state }: Try) => state === "waiting" || state === "looking";
