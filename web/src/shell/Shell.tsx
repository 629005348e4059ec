import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { LogOut, Search } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, Navigate, Outlet, useLocation } from "react-router";
import { ApiError, api, got, type Schemas } from "../api/client";
import { meQuery } from "../api/queries";
import { signOut } from "../api/session";
import { withChoices } from "../bench/judging/choices";
import type { Judgement } from "../bench/judging/verdict";
import { onTaken, openOutbox } from "../outbox";
import { Trouble } from "../parts/Trouble";
import { forgetForms } from "../parts/useKeptForm";
import { Wordmark } from "../parts/Wordmark";
import type { Units } from "../units";
import { ConnectionNote } from "./ConnectionNote";
import { Finder } from "./Finder";
import { OutboxNotes, SavingWord } from "./OutboxNotes";
import { Places } from "./Places";
import { UndoNote } from "./UndoNote";
import { failed } from "./undo";
import { useFinder } from "./useFinder";

/** The frame around every screen of a signed-in instructor. */
export function Shell() {
  const me = useQuery(meQuery);
  const here = useLocation();
  const queries = useQueryClient();
  const ready = useOpenOutbox(me.data?.id);
  const [finding, setFinding] = useFinder();
  usePrefetched(me.data !== undefined);
  useTaken();
  if (me.error instanceof ApiError && (me.error.status === 401 || me.error.status === 403) && !me.data)
    return <Navigate to={`/sign-in?next=${encodeURIComponent(here.pathname + here.search)}`} replace />;
  const leave = async () => {
    await signOut();
    forgetForms();
    queries.clear();
    window.location.assign("/sign-in");
  };
  return (
    <div className="flex h-full flex-col">
      <a href="#main" className="btn btn-sm sr-only focus:not-sr-only focus:absolute focus:z-50">
        Skip to the work
      </a>
      <header
        data-theme="bench-dusk"
        className="flex h-12 shrink-0 items-center gap-2 bg-pine px-2 text-paper sm:gap-6 sm:px-4"
      >
        <Wordmark />
        <Places account={me.data?.name ?? "Account"} />
        <div className="ml-auto flex items-center gap-3 text-sm">
          <SavingWord />
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square"
            aria-label="Find anything (Ctrl K)"
            title="Find anything (Ctrl K)"
            onClick={() => setFinding(true)}
          >
            <Search size={16} aria-hidden />
          </button>
          <UnitsChoice units={me.data?.units ?? "cm"} />
          <Link to="/account" className="hidden hover:underline md:inline">
            {me.data?.name}
          </Link>
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square"
            aria-label="Sign out"
            onClick={() => void leave().catch(failed)}
          >
            <LogOut size={16} aria-hidden />
          </button>
        </div>
      </header>
      <ConnectionNote kept="What you do here is kept and sent when it is back." />
      <OutboxNotes />
      <main id="main" className="relative min-h-0 flex-1 overflow-auto" tabIndex={-1}>
        {me.error && !me.data && <Trouble error={me.error} retry={me.refetch} />}
        {me.data && ready && <Outlet />}
      </main>
      <UndoNote />
      {finding && <Finder close={() => setFinding(false)} />}
    </div>
  );
}

/** Whether what this user left unsent in this browser lies ready. */
function useOpenOutbox(user: string | undefined): boolean {
  const [opened, setOpened] = useState<string>();
  useEffect(() => {
    if (user) void openOutbox(user).then(() => setOpened(user));
  }, [user]);
  return user !== undefined && opened === user;
}

/** Fetches what comes in pieces of its own while there is a connection: to open without one, and at once. */
function usePrefetched(signedIn: boolean): void {
  useEffect(() => {
    if (!signedIn) return;
    const timer = window.setTimeout(() => {
      void Promise.allSettled([import("../bench/Bench"), import("../shelf/Shelf")]);
      import("../frames/workers").then(({ haveReady }) => haveReady(1)).catch(() => undefined);
    }, 500);
    return () => window.clearTimeout(timer);
  }, [signedIn]);
}

/** What the server took of lessons and of what was chosen at Judge, on whatever screen that happens. */
function useTaken(): void {
  const queries = useQueryClient();
  useEffect(
    () =>
      onTaken((_, posts, answer) => {
        const first = posts[0];
        if (!first || first.kind === "edit") return;
        if (first.kind === "decision" || first.kind === "plan") {
          // What has arrived stands until the server's own word of it is here.
          queries.setQueriesData<Judgement>({ queryKey: ["judgement", first.swingId] }, (before) =>
            before ? withChoices(before, posts) : before,
          );
          void queries.invalidateQueries({ queryKey: ["judgement", first.swingId] });
          void queries.invalidateQueries({ queryKey: ["plan", first.swingId] });
          void queries.invalidateQueries({ queryKey: ["sheet-preview"] });
          return;
        }
        if (first.kind === "take" || first.kind === "piece" || first.kind === "cut") {
          void queries.invalidateQueries({ queryKey: ["walk", first.lessonId] });
          void queries.invalidateQueries({ queryKey: ["walk-played", first.lessonId] });
          void queries.invalidateQueries({ queryKey: ["sheet-preview", first.lessonId] });
          return;
        }
        if (first.kind === "answer") return;
        const lesson = answer as Schemas["LessonOut"];
        queries.setQueryData(["lesson", lesson.id], lesson);
        void queries.invalidateQueries({ queryKey: ["sheet-preview", lesson.id] });
        void queries.invalidateQueries({ queryKey: ["lessons"] });
      }),
    [queries],
  );
}

function UnitsChoice({ units }: { units: Units }) {
  const queries = useQueryClient();
  const change = useMutation({
    mutationFn: (next: Units) => got(api.PATCH("/api/me", { body: { units: next } })),
    onSuccess: (me) => queries.setQueryData(meQuery.queryKey, me),
    onError: failed,
  });
  return (
    <fieldset className="flex overflow-hidden rounded-sm border border-paper/40">
      <legend className="sr-only">Units</legend>
      {(["cm", "in"] as const).map((each) => (
        <button
          key={each}
          type="button"
          aria-pressed={units === each}
          className={`num min-h-6 px-2 text-xs ${units === each ? "bg-paper text-pine" : ""}`}
          onClick={() => change.mutate(each)}
        >
          {each}
        </button>
      ))}
    </fieldset>
  );
}
