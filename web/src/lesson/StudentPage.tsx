import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { ApiError, api, got, type Schemas } from "../api/client";
import { keepOffline } from "../offline/keepOffline";
import { Asking } from "../page/Asking";
import { PracticeDrill } from "../page/PracticeDrill";
import { usePage } from "../page/usePage";
import { usePageTitle } from "../parts/usePageTitle";
import { ConnectionNote } from "../shell/ConnectionNote";
import { UnsentNotes } from "../shell/UnsentNotes";
import { UntilHere } from "../shell/UntilHere";
import { SheetView } from "./SheetView";
import { TakeAlong } from "./TakeAlong";

/** The page behind a lesson's link: no account, no password. */
export function StudentPage({ token }: { token: string }) {
  const version = Number(new URLSearchParams(window.location.search).get("version")) || undefined;
  const sheet = useQuery({
    queryKey: ["sheet", token, version],
    queryFn: () => got(api.GET("/api/sheets/{token}", { params: { path: { token }, query: { version } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  usePageTitle(sheet.data?.title ?? "Your lesson");
  const data = sheet.data;
  useEffect(() => {
    if (!data) return;
    const shown = data.plan?.focus.flatMap(({ drills }) => drills.flatMap((drill) => drill.shown)) ?? [];
    const stills = data.frames.map(({ id }) => `/api/sheets/${token}/${id}.jpg`);
    const portrait = data.look.portrait ? [data.look.portrait] : [];
    void keepOffline([`/api/sheets/${token}`, ...portrait, ...stills, ...shown.map(({ url }) => url)]);
  }, [data, token]);
  if (sheet.error && !sheet.data)
    return (
      <main className="mx-auto max-w-md p-6">
        <h1 className="text-xl font-bold">
          {sheet.error instanceof ApiError && sheet.error.status === 404
            ? "This link no longer leads to a lesson"
            : "The lesson cannot be fetched right now"}
        </h1>
        <p className="mt-2">
          {sheet.error instanceof ApiError && sheet.error.status === 404 ? (
            <>
              It may have run out or been taken back.{" "}
              <a className="link" href="/p">
                Get to your page by a code
              </a>
              , or ask your instructor for a new one.
            </>
          ) : (
            "Check your connection and try again."
          )}
        </p>
      </main>
    );
  if (!sheet.data) return <UntilHere />;
  const shown = {
    sheet: sheet.data,
    still: (frame: Schemas["LessonFrameOut"]) => `/api/sheets/${token}/${frame.id}.jpg`,
    walk: `/api/sheets/${token}/walk`,
    offline: true,
    ending: <TakeAlong base={`/api/sheets/${token}`} film={sheet.data.walk?.film ?? false} />,
  };
  return (
    <main className="min-h-full bg-base-100">
      <ConnectionNote kept="What you have open stays readable; what you tick or ask is kept and sent later." />
      <UnsentNotes />
      {sheet.data.page && sheet.data.lesson_id && !version ? (
        <Answered {...shown} page={sheet.data.page} />
      ) : (
        <SheetView {...shown} />
      )}
    </main>
  );
}

/** A lesson of a student who can tick, and ask. */
function Answered(props: Parameters<typeof SheetView>[0] & { page: string }) {
  const { sheet, page: token } = props;
  const page = usePage(token);
  if (!page.open || !page.shown) return <SheetView {...props} />;
  const { practised, messages, instructor } = page.shown;
  return (
    <SheetView
      {...props}
      ladder={(drill) => (
        <PracticeDrill drill={drill} token={token} practised={practised} hand={sheet.hand} />
      )}
      ending={
        <>
          {props.ending}
          <Asking
            token={token}
            lessonId={sheet.lesson_id}
            instructor={instructor}
            messages={messages.filter(
              (each) => each.lesson_id === sheet.lesson_id || each.side === "instructor",
            )}
          />
          <p className="mt-6" data-no-print>
            <a className="btn w-full" href={`/p/${token}`}>
              All your lessons, practice and goals
            </a>
          </p>
        </>
      }
    />
  );
}
