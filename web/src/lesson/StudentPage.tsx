import { useQuery } from "@tanstack/react-query";
import { ApiError, api, got } from "../api/client";
import { usePageTitle } from "../parts/usePageTitle";
import { ConnectionNote } from "../shell/ConnectionNote";
import { SheetView } from "./SheetView";

/** The page behind a lesson's link: no account, no password. */
export function StudentPage({ token }: { token: string }) {
  const sheet = useQuery({
    queryKey: ["sheet", token],
    queryFn: () => got(api.GET("/api/sheets/{token}", { params: { path: { token } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  usePageTitle(sheet.data?.title ?? "Your lesson");
  if (sheet.error && !sheet.data)
    return (
      <main className="mx-auto max-w-md p-6">
        <h1 className="text-xl font-bold">
          {sheet.error instanceof ApiError && sheet.error.status === 404
            ? "This link no longer leads to a lesson"
            : "The lesson cannot be fetched right now"}
        </h1>
        <p className="mt-2">
          {sheet.error instanceof ApiError && sheet.error.status === 404
            ? "It may have run out or been taken back. Ask your instructor for a new one."
            : "Check your connection and try again."}
        </p>
      </main>
    );
  if (!sheet.data) return <main className="p-6">Fetching your lesson…</main>;
  return (
    <main className="min-h-full bg-base-100">
      <ConnectionNote kept="What you have open stays readable." />
      <SheetView
        sheet={sheet.data}
        still={(frame) => `/api/sheets/${token}/${frame.id}.jpg`}
        walk={`/api/sheets/${token}/walk`}
      />
    </main>
  );
}
