import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { ApiError, api, got, type Schemas } from "../api/client";
import { usePageTitle } from "../parts/usePageTitle";
import { Wordmark } from "../parts/Wordmark";
import { ConnectionNote } from "../shell/ConnectionNote";
import { FilmingCard } from "./FilmingCard";
import { SendForm } from "./SendForm";

/** The page behind a request link: a student sends swings without an account. */
export function RequestPage({ token }: { token: string }) {
  const asked = useQuery({
    queryKey: ["asked", token],
    queryFn: () => got(api.GET("/api/sent/{token}", { params: { path: { token } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  usePageTitle("Send your swing");
  const gone = asked.error instanceof ApiError && asked.error.status === 404;
  return (
    <div className="min-h-screen bg-base-200">
      <div className="mx-auto max-w-lg p-4">
        <header className="mb-4 rounded bg-pine p-3 text-paper">
          <Wordmark />
        </header>
        <div className="mb-3 empty:hidden">
          <ConnectionNote kept="What has arrived is kept; it goes on when the connection is back." />
        </div>
        {asked.error && !asked.data && (
          <main>
            <h1 className="text-xl font-bold">
              {gone ? "This link no longer leads anywhere" : "The page cannot be fetched right now"}
            </h1>
            <p className="mt-2">
              {gone
                ? "It may have run out or been taken back. Ask your instructor for a new one."
                : "Check your connection and try again."}
            </p>
          </main>
        )}
        {asked.data && <Sending asked={asked.data} token={token} />}
      </div>
    </div>
  );
}

function Sending({ asked, token }: { asked: Schemas["Asked"]; token: string }) {
  const [sent, setSent] = useState(false);
  if (sent)
    return (
      <main>
        <h1 className="text-2xl font-bold">Thank you, your swing is with {asked.instructor}</h1>
        <p className="mt-2">You get a mail when your lesson is ready. You can close this page.</p>
        <button type="button" className="btn mt-4" onClick={() => setSent(false)}>
          Send another swing
        </button>
      </main>
    );
  return (
    <main>
      <h1 className="text-2xl font-bold">{asked.student}, send your swing</h1>
      <p className="mt-1 mb-3">
        To {asked.instructor}. Only the two of you see it. {asked.note}
      </p>
      <FilmingCard hand={asked.hand} />
      {asked.may_be_filmed ? (
        <SendForm token={token} hand={asked.hand} done={() => setSent(true)} />
      ) : (
        <p className="plate border-l-4 border-l-brass p-3">
          You are under age: a guardian must give {asked.instructor} their consent first. After that this page
          takes your clips.
        </p>
      )}
    </main>
  );
}
